export { TeamRoom as default } from '../../screens/rooms/team';
