export { MeRoom as default } from '../../screens/rooms/me';
