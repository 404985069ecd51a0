import { nextTime } from '@porch/core/hours';
import { type LampSetting, lampAt } from '@porch/core/lamp';
import { useGlobalSearchParams } from 'expo-router';
import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { LampGlyph } from '../../../kit/drawn/lamp-glyph';
import { MomentField } from '../../../kit/fields/moment-field';
import { Button } from '../../../kit/press';
import { Sheet } from '../../../kit/sheets/sheet';
import { Text } from '../../../kit/text';
import { touch } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { momentInWords } from '../../../kit/times';
import { kitWords } from '../../../kit/words';
import { useKeys } from '../../../shell/frame/use-keys';
import { serverNow, useLive } from '../../../shell/live/store';
import { useAsTimeGoes } from '../../../shell/live/use-now';
import { useZone } from '../../../shell/session/house';
import { useSetLamp } from '../data/lamp';
import { words } from '../words';

const MINUTE_MS = 60_000;
const SOON_MINUTES = [15, 30, 60, 120];

/** A way to change the light, with what it means for visitors; only named where the light is so already. */
const Way = (props: {
  isSo: boolean;
  so: string;
  label: string;
  more: string;
  look?: 'main';
  set: () => void;
}) => (
  <>
    {props.isSo ? (
      <Text kind="name">{props.so}</Text>
    ) : (
      <Button look={props.look} label={props.label} onPress={props.set} />
    )}
    <Text kind="second" tone="slate">
      {props.more}
    </Text>
  </>
);

const LampSheet = (props: {
  state: LampSetting['state'] | undefined;
  set: (lamp: LampSetting) => void;
  close: () => void;
}) => {
  const zone = useZone();
  const theme = useTheme();
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState('');
  const backAt = (until: number) => props.set({ state: 'back-soon', until });
  const setTime = (): void => {
    const until = nextTime(typed, serverNow(), zone);
    if (until === null) setProblem(words().atWrong);
    else backAt(until);
  };
  return (
    <Sheet title={words().label} close={props.close}>
      <Way
        isSo={props.state === 'lit'}
        so={words().lit}
        look="main"
        label={words().setLit}
        more={words().setLitMore}
        set={() => props.set({ state: 'lit', until: null })}
      />
      <View style={[styles.rule, { backgroundColor: theme.seam }]} />
      <Text kind="name">{words().setSoon}</Text>
      <Text kind="second" tone="slate">
        {words().setSoonMore}
      </Text>
      <View style={styles.row}>
        {SOON_MINUTES.map((minutes) => (
          <Button
            key={minutes}
            label={words().minutes(minutes)}
            onPress={() => backAt(serverNow() + minutes * MINUTE_MS)}
          />
        ))}
      </View>
      <View style={styles.time}>
        <View style={styles.grow}>
          <MomentField
            kind="time"
            label={words().at}
            value={typed}
            problem={problem}
            onChange={(time) => {
              setTyped(time);
              setProblem('');
            }}
          />
        </View>
        <Button label={words().atSet} onPress={setTime} />
      </View>
      <View style={[styles.rule, { backgroundColor: theme.seam }]} />
      <Way
        isSo={props.state === 'dark'}
        so={words().dark}
        label={words().setDark}
        more={words().setDarkMore}
        set={() => props.set({ state: 'dark', until: null })}
      />
    </Sheet>
  );
};

const sayingOf = (
  lamp: LampSetting | null,
  now: number,
  zone: string,
): { state: LampSetting['state'] | undefined; saying: string } => {
  if (!lamp) return { state: undefined, saying: kitWords().loading };
  const saying =
    lamp.state === 'back-soon'
      ? words()['back-soon'](momentInWords(lamp.until, now, zone))
      : words()[lamp.state];
  return { state: lamp.state, saying };
};

/** The porch light: what it shows now, and the ways to change it. */
export const LampSwitch = () => {
  const theme = useTheme();
  const zone = useZone();
  const kept = useLive((live) => live.lamp);
  const { state, saying } = useAsTimeGoes((now) => sayingOf(kept && lampAt(kept, now), now, zone));
  const { mutate } = useSetLamp();
  const { show } = useGlobalSearchParams<{ show?: string }>();
  const [isOpen, setOpen] = useState(show === 'light');
  useKeys({ l: () => setOpen(true) });
  const more = state ? words()[`${state}More`] : words().label;
  return (
    <>
      <Pressable
        role="button"
        aria-label={`${words().label}: ${saying}. ${words().change}`}
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
            {more}
          </Text>
        </View>
        <View
          aria-hidden
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
      {isOpen ? (
        <LampSheet
          state={state}
          close={() => setOpen(false)}
          set={(next) => {
            mutate(next);
            setOpen(false);
          }}
        />
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
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
  time: { flexDirection: 'row', alignItems: 'flex-end', gap: 8 },
  rule: { height: 1 },
  track: { width: 52, height: 28, borderWidth: 2, borderRadius: 999, justifyContent: 'center' },
  knob: { width: 18, height: 18, borderRadius: 999, marginLeft: 3 },
  knobSoon: { marginLeft: 15 },
  knobLit: { marginLeft: 27 },
});
