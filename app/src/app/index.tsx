export { ErrorBoundary } from '../parts/error-boundary';

/** Whoever comes to the bare address is sent on by the layout. */
const Index = () => null;

export default Index;
