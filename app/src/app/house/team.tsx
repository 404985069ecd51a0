export { Team as default } from '../../features/team/screens/team';
export { ErrorBoundary } from '../../shell/offline/error-boundary';
