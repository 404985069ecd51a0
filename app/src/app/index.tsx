export { ErrorBoundary } from '../shell/offline/error-boundary';

/** Whoever comes to the bare address is sent on by the layout. */
const Index = () => null;

export default Index;
