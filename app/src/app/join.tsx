export { JoinByLink as default } from '../features/entrance/screens/by-link';
export { ErrorBoundary } from '../shell/offline/error-boundary';
