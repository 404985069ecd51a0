import { useGlobalSearchParams } from 'expo-router';
import { lazy, Suspense, useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { drawn } from '../../../kit/drawn/in-own-colours';
import { LampGlyph } from '../../../kit/drawn/lamp-glyph';
import { Problem } from '../../../kit/fields/form';
import { Text } from '../../../kit/text';
import { touch } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { useKeys } from '../../../shell/frame/use-keys';
import { useLive } from '../../../shell/live/store';
import { useAsTimeGoes } from '../../../shell/live/use-now';
import { useReadyAtTouch } from '../../../shell/offline/ready';
import { useZone } from '../../../shell/session/house';
import { problemOf } from '../../../shell/session/problems';
import { useSetLamp } from '../data/lamp';
import { words } from '../words';
import { lampInWords } from './in-words';

const loadSheet = () => import('./lamp-sheet');
const LampSheet = lazy(loadSheet);

/** The porch light: what it shows now, and the ways to change it. */
export const LampSwitch = () => {
  const theme = useTheme();
  const zone = useZone();
  const kept = useLive((live) => live.lamp);
  const { state, saying, under } = useAsTimeGoes((now) => lampInWords(kept, now, zone));
  const setLamp = useSetLamp();
  const { show } = useGlobalSearchParams<{ show?: string }>();
  const [isOpen, setOpen] = useState(show === 'light');
  useReadyAtTouch(loadSheet);
  useKeys({ l: () => setOpen(true) });
  return (
    <>
      <Pressable
        role="button"
        aria-label={`${words().label}: ${saying}. ${under}. ${words().change}`}
        onPress={() => setOpen(true)}
        style={[
          styles.switch,
          {
            borderColor: theme.ink,
            backgroundColor: state === 'lit' ? theme.paper : theme.linen,
          },
        ]}
      >
        <LampGlyph state={state ?? 'dark'} />
        <View style={styles.grow}>
          <Text kind="name" numberOfLines={1}>
            {saying}
          </Text>
          <Text kind="small" tone={state === 'lit' ? 'ember' : 'slate'} numberOfLines={1}>
            {under}
          </Text>
        </View>
        <View
          aria-hidden
          {...drawn}
          style={[
            styles.track,
            { borderColor: theme.ink },
            state === 'lit' ? { backgroundColor: theme.lamp } : null,
          ]}
        >
          <View
            style={[
              styles.knob,
              { backgroundColor: theme.ink },
              state === 'lit' ? styles.knobLit : state === 'dark' ? null : styles.knobSoon,
            ]}
          />
        </View>
      </Pressable>
      <Problem text={problemOf(setLamp.error)} />
      {isOpen ? (
        <Suspense fallback={null}>
          <LampSheet set={setLamp.mutate} close={() => setOpen(false)} />
        </Suspense>
      ) : null}
    </>
  );
};

const styles = StyleSheet.create({
  switch: {
    minHeight: touch + 12,
    flexDirection: 'row',
    alignItems: 'center',
    gap: 12,
    paddingHorizontal: 16,
    paddingVertical: 6,
    borderWidth: 2,
    borderRadius: 999,
  },
  grow: { flex: 1 },
  track: { width: 52, height: 28, borderWidth: 2, borderRadius: 999, justifyContent: 'center' },
  knob: { width: 18, height: 18, borderRadius: 999, marginLeft: 3 },
  knobSoon: { marginLeft: 15 },
  knobLit: { marginLeft: 27 },
});
