import { router } from 'expo-router';
import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { useHouse } from '../data/house';
import { useLive } from '../data/live-store';
import { useOutbox } from '../data/outbox';
import { Button } from '../parts/press';
import { Words } from '../parts/words';
import { useTheme } from '../theme/use-theme';
import { words } from '../wording';

const Strip = (props: { isUrgent?: boolean; said: string; children?: ReactNode }) => {
  const theme = useTheme();
  return (
    <View
      role={props.isUrgent ? 'alert' : 'status'}
      style={[styles.strip, { backgroundColor: theme.linen, borderColor: theme.seam }]}
    >
      <Words kind="second" tone={props.isUrgent ? 'brick' : 'ink'} style={styles.said}>
        {props.said}
      </Words>
      {props.children}
    </View>
  );
};

/** What concerns the whole house and everybody on it should know, said once above every screen. */
export const Strips = () => {
  const { isConnected, wasConnected } = useLive();
  const house = useHouse().data;
  const failed = useOutbox().queue.filter(({ state }) => state === 'failed');
  const [first] = failed;
  return (
    <>
      {!isConnected && wasConnected ? <Strip said={words.offline} /> : null}
      {isConnected && house?.canWrite === false ? (
        <Strip isUrgent said={words.cannotWrite} />
      ) : null}
      {first ? (
        <Strip isUrgent said={words.notDone.strip(failed.length)}>
          <Button
            look="bare"
            label={words.notDone.look}
            onPress={() => router.navigate(`/line/${first.lane}`)}
          />
        </Strip>
      ) : null}
      {house?.warning ? (
        <Strip said={words.warning.strip}>
          <Button
            look="bare"
            label={words.notDone.look}
            onPress={() => router.navigate('/house')}
          />
        </Strip>
      ) : null}
    </>
  );
};

const styles = StyleSheet.create({
  strip: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: 8,
    paddingHorizontal: 16,
    paddingVertical: 4,
    borderBottomWidth: 1,
  },
  said: { flex: 1, paddingVertical: 4 },
});
