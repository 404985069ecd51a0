import { router } from 'expo-router';
import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { useShallow } from 'zustand/react/shallow';
import { Button } from '../../kit/press';
import { Text } from '../../kit/text';
import { useTheme } from '../../kit/theme/use-theme';
import { useOutbox } from '../live/outbox';
import { useLive } from '../live/store';
import { takeNewVersion, useNewVersion } from '../offline/new-version';
import { useHouse } from '../session/house';
import { shellWords } from '../words';

const Strip = (props: { isUrgent?: boolean; said: string; children?: ReactNode }) => {
  const theme = useTheme();
  return (
    <View
      role={props.isUrgent ? 'alert' : 'status'}
      style={[styles.strip, { backgroundColor: theme.linen, borderColor: theme.seam }]}
    >
      <Text kind="second" tone={props.isUrgent ? 'brick' : 'ink'} style={styles.said}>
        {props.said}
      </Text>
      {props.children}
    </View>
  );
};

/** What concerns the whole house and everybody on it should know, said once above every screen. */
export const Strips = () => {
  const isConnected = useLive((live) => live.isConnected);
  const wasConnected = useLive((live) => live.wasConnected);
  const house = useHouse().data;
  const isNewer = useNewVersion(({ waiting }) => waiting !== null);
  const failed = useOutbox(
    useShallow(({ queue }) => queue.filter(({ state }) => state === 'failed')),
  );
  const [first] = failed;
  return (
    <>
      {!isConnected && wasConnected ? <Strip said={shellWords().offline} /> : null}
      {isConnected && house?.canWrite === false ? (
        <Strip isUrgent said={shellWords().cannotWrite} />
      ) : null}
      {isNewer ? (
        <Strip said={shellWords().newVersion}>
          <Button look="bare" label={shellWords().takeNewVersion} onPress={takeNewVersion} />
        </Strip>
      ) : null}
      {first ? (
        <Strip isUrgent said={shellWords().notDone(failed.length)}>
          <Button
            look="bare"
            label={shellWords().look}
            onPress={() => router.navigate(`/line/${first.lane}`)}
          />
        </Strip>
      ) : null}
      {house?.warning ? (
        <Strip said={shellWords().warning}>
          <Button look="bare" label={shellWords().look} onPress={() => router.navigate('/house')} />
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
