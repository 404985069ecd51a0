export { ErrorBoundary } from '../../parts/error-boundary';
export { BusinessRoom as default } from '../../screens/rooms/business';
