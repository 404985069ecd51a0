export { ErrorBoundary } from '../parts/error-boundary';
export { Search as default } from '../screens/search';
