export { ErrorBoundary } from '../parts/error-boundary';
export { PairByCode as default } from '../screens/by-link';
