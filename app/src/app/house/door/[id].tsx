import { useLocalSearchParams } from 'expo-router';
import { DoorRoom } from '../../../screens/rooms/door';

const DoorPlace = () => {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <DoorRoom key={id} id={id} />;
};

export default DoorPlace;
