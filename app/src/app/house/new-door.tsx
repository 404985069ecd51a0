export { NewDoor as default } from '../../features/doors/screens/new-door';
export { ErrorBoundary } from '../../shell/offline/error-boundary';
