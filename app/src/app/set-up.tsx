export { ErrorBoundary } from '../parts/error-boundary';
export { SetUp as default } from '../screens/entrance';
