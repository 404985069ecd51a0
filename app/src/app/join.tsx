export { ErrorBoundary } from '../parts/error-boundary';
export { JoinByLink as default } from '../screens/by-link';
