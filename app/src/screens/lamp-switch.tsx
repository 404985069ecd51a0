import { nextTime } from '@porch/core/hours';
import { type LampSetting, lampAt } from '@porch/core/lamp';
import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { useZone } from '../data/house';
import { useSetLamp } from '../data/lamp';
import { useLive } from '../data/live-store';
import { LampGlyph } from '../parts/lamp-glyph';
import { MomentField } from '../parts/moment-field';
import { Button } from '../parts/press';
import { Sheet } from '../parts/sheet';
import { useKeys } from '../parts/use-keys';
import { useNow } from '../parts/use-now';
import { Words } from '../parts/words';
import { touch } from '../theme/sizes';
import { useTheme } from '../theme/use-theme';
import { words } from '../wording';
import { momentInWords } from '../wording/times';

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
      <Words kind="name">{props.so}</Words>
    ) : (
      <Button look={props.look} label={props.label} onPress={props.set} />
    )}
    <Words kind="second" tone="slate">
      {props.more}
    </Words>
  </>
);

const LampSheet = (props: {
  state: LampSetting['state'] | undefined;
  set: (lamp: LampSetting) => void;
  close: () => void;
}) => {
  const zone = useZone();
  const now = useNow();
  const theme = useTheme();
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState('');
  const backAt = (until: number) => props.set({ state: 'back-soon', until });
  const setTime = (): void => {
    const until = nextTime(typed, now, zone);
    if (until === null) setProblem(words.lamp.atWrong);
    else backAt(until);
  };
  return (
    <Sheet title={words.lamp.label} close={props.close}>
      <Way
        isSo={props.state === 'lit'}
        so={words.lamp.lit}
        look="main"
        label={words.lamp.setLit}
        more={words.lamp.setLitMore}
        set={() => props.set({ state: 'lit', until: null })}
      />
      <View style={[styles.rule, { backgroundColor: theme.seam }]} />
      <Words kind="name">{words.lamp.setSoon}</Words>
      <Words kind="second" tone="slate">
        {words.lamp.setSoonMore}
      </Words>
      <View style={styles.row}>
        {SOON_MINUTES.map((minutes) => (
          <Button
            key={minutes}
            label={words.lamp.minutes(minutes)}
            onPress={() => backAt(now + minutes * MINUTE_MS)}
          />
        ))}
      </View>
      <View style={styles.time}>
        <View style={styles.grow}>
          <MomentField
            kind="time"
            label={words.lamp.at}
            value={typed}
            problem={problem}
            onChange={(time) => {
              setTyped(time);
              setProblem('');
            }}
          />
        </View>
        <Button label={words.lamp.atSet} onPress={setTime} />
      </View>
      <View style={[styles.rule, { backgroundColor: theme.seam }]} />
      <Way
        isSo={props.state === 'dark'}
        so={words.lamp.dark}
        label={words.lamp.setDark}
        more={words.lamp.setDarkMore}
        set={() => props.set({ state: 'dark', until: null })}
      />
    </Sheet>
  );
};

/** The porch light: what it shows now, and the ways to change it. */
export const LampSwitch = () => {
  const theme = useTheme();
  const zone = useZone();
  const kept = useLive().lamp;
  const now = useNow();
  const { mutate } = useSetLamp();
  const [isOpen, setOpen] = useState(false);
  useKeys({ l: () => setOpen(true) });
  const lamp = kept ? lampAt(kept, now) : null;
  const saying = lamp
    ? lamp.state === 'back-soon'
      ? words.lamp['back-soon'](momentInWords(lamp.until, now, zone))
      : words.lamp[lamp.state]
    : words.loading;
  const more = lamp ? words.lamp[`${lamp.state}More`] : words.lamp.label;
  return (
    <>
      <Pressable
        role="button"
        aria-label={`${words.lamp.label}: ${saying}. ${words.lamp.change}`}
        onPress={() => setOpen(true)}
        style={[
          styles.switch,
          {
            borderColor: theme.ink,
            backgroundColor: lamp?.state === 'lit' ? theme.paper : theme.linen,
          },
        ]}
      >
        <LampGlyph state={lamp?.state ?? 'dark'} />
        <View style={styles.grow}>
          <Words kind="name" numberOfLines={1}>
            {saying}
          </Words>
          <Words kind="small" tone={lamp?.state === 'lit' ? 'ember' : 'slate'} numberOfLines={1}>
            {more}
          </Words>
        </View>
        <View
          aria-hidden
          style={[
            styles.track,
            { borderColor: theme.ink },
            lamp?.state === 'lit' ? { backgroundColor: theme.lamp } : null,
          ]}
        >
          <View
            style={[
              styles.knob,
              { backgroundColor: theme.ink },
              lamp?.state === 'lit'
                ? styles.knobLit
                : lamp?.state === 'dark'
                  ? null
                  : styles.knobSoon,
            ]}
          />
        </View>
      </Pressable>
      {isOpen ? (
        <LampSheet
          state={lamp?.state}
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
