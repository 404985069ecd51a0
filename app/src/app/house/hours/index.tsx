export { HoursScreen as default } from '../../../features/hours/screens/hours';
export { ErrorBoundary } from '../../../shell/offline/error-boundary';
