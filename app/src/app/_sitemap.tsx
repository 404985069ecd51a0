// Without this the router shows a list of all its routes there.

export { ErrorBoundary } from '../shell/offline/error-boundary';
export { default } from './[...missing]';
