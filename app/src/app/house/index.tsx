export { ErrorBoundary } from '../../parts/error-boundary';
export { House as default } from '../../screens/house';
