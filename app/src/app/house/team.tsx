export { ErrorBoundary } from '../../parts/error-boundary';
export { TeamRoom as default } from '../../screens/rooms/team';
