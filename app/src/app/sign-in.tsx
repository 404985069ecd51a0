export { SignIn as default } from '../screens/entrance';
