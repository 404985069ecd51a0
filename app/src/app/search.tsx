export { Search as default } from '../screens/search';
