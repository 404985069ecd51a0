export { Me as default } from '../../features/team/screens/me';
export { ErrorBoundary } from '../../shell/offline/error-boundary';
