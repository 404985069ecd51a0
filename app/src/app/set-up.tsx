export { SetUp as default } from '../screens/entrance';
