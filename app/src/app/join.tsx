export { JoinByLink as default } from '../screens/by-link';
