export { Search as default } from '../features/search/screens/search';
export { ErrorBoundary } from '../shell/offline/error-boundary';
