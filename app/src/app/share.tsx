export { Share as default } from '../features/talk/screens/share';
export { ErrorBoundary } from '../shell/offline/error-boundary';
