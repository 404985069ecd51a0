import { QueryClient } from '@tanstack/react-query';
import { PersistQueryClientProvider } from '@tanstack/react-query-persist-client';
import { Slot, usePathname, useRouter } from 'expo-router';
import { useEffect } from 'react';
import { View } from 'react-native';
import { useInstalledNote } from '../features/doorbell/data/installed';
import { leaveBell, useBellDevice } from '../features/doorbell/data/this-device';
import { LampSwitch } from '../features/lamp/parts/lamp-switch';
import { LateAsk } from '../features/lamp/parts/late-ask';
import { forgetSought } from '../features/search/data/search';
import { Failed, RowsComing } from '../kit/states';
import { useTheme } from '../kit/theme/use-theme';
import { bestOf, speak } from '../kit/wording';
import { Frame } from '../shell/frame/frame';
import { useConnection } from '../shell/live/use-connection';
import { useWorker } from '../shell/live/use-worker';
import { askHouseAnew, forget, keepApp, keeping, keepLong } from '../shell/offline/offline';
import { session } from '../shell/session/gone';
import { useHouse } from '../shell/session/house';
import { isWorthAskingAgain } from '../shell/session/refused';
import { useBeforeDropped } from '../shell/start/use-start';

const client = new QueryClient({
  defaultOptions: {
    queries: {
      retry: isWorthAskingAgain,
      // Without signal the cache answers, and the connection says what was missed.
      networkMode: 'always',
      refetchOnWindowFocus: false,
    },
    mutations: { networkMode: 'always' },
  },
});

const language = bestOf(navigator.languages ?? []);
speak(language);
document.documentElement.lang = language;
keepLong(client);
keepApp();

const entrances = ['/sign-in', '/set-up'];
/** Whoever has a link comes in by it, signed in or not. */
const byLink = ['/join', '/new-password', '/pair'];

/** Sends whoever is not signed in to the entrance, and whoever is, inside. */
const Door = () => {
  const theme = useTheme();
  const path = usePathname();
  const router = useRouter();
  const { data: house, isError, refetch } = useHouse();
  const isSignedIn = Boolean(house?.me);
  const isAtEntrance = entrances.includes(path);
  const isByLink = byLink.includes(path);
  const isNew = house?.me?.role === 'owner' && house.business?.walkStep === 'business';
  const wanted =
    !house || isByLink
      ? null
      : house.me
        ? isAtEntrance || path === '/'
          ? isNew
            ? '/walk'
            : '/line'
          : null
        : house.isSetUp
          ? '/sign-in'
          : '/set-up';
  const isElsewhere = wanted !== null && wanted !== path;
  const isSignedOut = house?.me === null;
  useEffect(() => {
    if (!isSignedOut) return;
    forget(client);
    forgetSought();
    leaveBell();
  }, [isSignedOut]);
  useEffect(() => {
    // The page may be connected all the same: whoever sends now is asked to sign in, and what they sent waits.
    const ask = (): void => void askHouseAnew(client);
    session.addEventListener('gone', ask);
    return () => session.removeEventListener('gone', ask);
  }, []);
  useConnection(isSignedIn);
  useWorker();
  useBellDevice(isSignedIn);
  useInstalledNote(house);
  useEffect(() => {
    if (isElsewhere && wanted) router.replace(wanted);
  }, [isElsewhere, wanted, router]);

  const drawsItself = path === '/line' || path === '/sign-in';
  useBeforeDropped(house ? !isElsewhere && !drawsItself : isError);
  const ground = { flex: 1, backgroundColor: theme.paper };
  if (!house) {
    return (
      <View style={ground}>
        {isError ? <Failed retry={() => void refetch()} /> : <RowsComing />}
      </View>
    );
  }
  if (isElsewhere) return <View style={ground} />;
  if (isAtEntrance || isByLink) {
    return (
      <View style={ground}>
        <Slot />
      </View>
    );
  }
  return (
    <Frame lamp={<LampSwitch />} asked={<LateAsk />}>
      <Slot />
    </Frame>
  );
};

const Layout = () => (
  <PersistQueryClientProvider
    client={client}
    persistOptions={keeping()}
    onSuccess={() => askHouseAnew(client)}
  >
    <Door />
  </PersistQueryClientProvider>
);

export { WholeErrorBoundary as ErrorBoundary } from '../shell/offline/error-boundary';

/** While a screen's code is on its way. */
export const SuspenseFallback = () => <RowsComing />;

export default Layout;
