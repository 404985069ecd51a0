export { BusinessRoom as default } from '../../screens/rooms/business';
