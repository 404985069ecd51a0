import { useLocalSearchParams } from 'expo-router';
import { Conversation } from '../../late/answering';

export { ErrorBoundary } from '../../shell/offline/error-boundary';

const ConversationPlace = () => {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <Conversation key={id} id={id} />;
};

export default ConversationPlace;
