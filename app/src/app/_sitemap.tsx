// Without this the router shows a list of all its routes there.
export { default } from './[...missing]';
