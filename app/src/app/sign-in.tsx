export { ErrorBoundary } from '../parts/error-boundary';
export { SignIn as default } from '../screens/entrance';
