export { ErrorBoundary } from '../../parts/error-boundary';
export { MeRoom as default } from '../../screens/rooms/me';
