export { SignIn as default } from '../features/entrance/screens/late';
export { ErrorBoundary } from '../shell/offline/error-boundary';
