export { NewDoor as default } from '../../screens/rooms/new-door';
