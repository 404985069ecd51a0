export { House as default } from '../../screens/house';
