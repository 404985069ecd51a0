export { ErrorBoundary } from '../parts/error-boundary';
export { NewPasswordByLink as default } from '../screens/by-link';
