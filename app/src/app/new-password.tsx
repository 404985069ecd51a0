export { NewPasswordByLink as default } from '../screens/by-link';
