import { useLocalSearchParams } from 'expo-router';
import { Conversation } from '../../screens/conversation';

export { ErrorBoundary } from '../../parts/error-boundary';

const ConversationPlace = () => {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <Conversation key={id} id={id} />;
};

export default ConversationPlace;
