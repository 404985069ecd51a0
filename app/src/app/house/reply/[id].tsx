import { useLocalSearchParams } from 'expo-router';
import { ReplyEditor } from '../../../late/answering';

export { ErrorBoundary } from '../../../shell/offline/error-boundary';

/** One quick reply, or a new one. */
const ReplyPlace = () => {
  const { id, talk } = useLocalSearchParams<{ id: string; talk?: string }>();
  return <ReplyEditor key={id} id={id} talkId={talk} />;
};

export default ReplyPlace;
