export { PairByCode as default } from '../screens/by-link';
