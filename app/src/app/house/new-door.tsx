export { ErrorBoundary } from '../../parts/error-boundary';
export { NewDoor as default } from '../../screens/rooms/new-door';
