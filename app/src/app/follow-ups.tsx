export { FollowUps as default } from '../features/follow-ups/screens/follow-ups';
export { ErrorBoundary } from '../shell/offline/error-boundary';
