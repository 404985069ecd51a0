import { ShelfList } from '../../../late/answering';

export { ErrorBoundary } from '../../../shell/offline/error-boundary';

export default ShelfList;
