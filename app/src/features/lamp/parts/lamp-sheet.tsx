import type { TeamLamp } from '@porch/contract/lamp';
import { nextTime } from '@porch/core/hours';
import type { LampSetting } from '@porch/core/lamp';
import { router } from 'expo-router';
import { type ReactNode, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Row } from '../../../kit/fields/form';
import { MomentField } from '../../../kit/fields/moment-field';
import { Button } from '../../../kit/press';
import { Sheet } from '../../../kit/sheets/sheet';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { momentInWords } from '../../../kit/times';
import { wayTo } from '../../../kit/way';
import { serverNow, useLive } from '../../../shell/live/store';
import { MINUTE_MS, useAsTimeGoes, useNow } from '../../../shell/live/use-now';
import { useZone } from '../../../shell/session/house';
import { words } from '../words';
import { lampInWords } from './in-words';
import { WhoIsIn } from './who-is-in';

const HOUR_MS = 60 * MINUTE_MS;
const SOON_MINUTES = [15, 30, 60];

interface Ways {
  lamp: TeamLamp;
  set: (lamp: LampSetting) => void;
  /** A moment as it is said beside a choice. */
  time: (at: number) => string;
  /** The way to the opening hours, past this sheet. */
  toHours: ReturnType<typeof wayTo>;
}

const Part = (props: { title: string; more: string; children: ReactNode }) => {
  const theme = useTheme();
  return (
    <View role="group" aria-label={props.title} style={[styles.part, { borderColor: theme.seam }]}>
      <Text kind="name" role="heading" aria-level={3}>
        {props.title}
      </Text>
      <Text kind="second" tone="slate">
        {props.more}
      </Text>
      {props.children}
    </View>
  );
};

/** Outside the hours it is said until when somebody answers; within them it is until they end. */
const LightIt = ({ lamp, set, time, toHours }: Ways) => {
  if (lamp.setting.state !== 'by-hours' && lamp.isOpen) return null;
  if (lamp.isOpen) {
    return lamp.state === 'lit' ? null : (
      <Part title={words().now} more={words().nowOpen}>
        <Row>
          <Button
            look="main"
            label={words().now}
            onPress={() => set({ state: 'lit', until: lamp.shutsNext })}
          />
        </Row>
      </Part>
    );
  }
  if (lamp.state === 'lit') return null;
  const { opensNext, hasHours } = lamp;
  return (
    <Part title={words().now} more={hasHours ? words().nowShut : words().nowUnset}>
      <Row>
        {hasHours ? null : <Button look="main" label={words().setHours} {...toHours} />}
        <Button
          label={words().forHour}
          onPress={() => set({ state: 'lit', until: serverNow() + HOUR_MS })}
        />
        {opensNext === null ? null : (
          <Button
            label={words().untilOpening(time(opensNext))}
            onPress={() => set({ state: 'lit', until: opensNext })}
          />
        )}
        <Button label={words().untilPutOut} onPress={() => set({ state: 'lit', until: null })} />
      </Row>
    </Part>
  );
};

/** What was set by hand can be ended before its time. */
const ByHoursAgain = ({ lamp, set }: Ways) =>
  lamp.setting.state === 'by-hours' ? null : (
    <Part title={words().whys.hand} more={words().byHoursMore}>
      <Row>
        <Button
          look="main"
          label={lamp.hasHours ? words().byHours : words().endNow}
          onPress={() => set({ state: 'by-hours', until: null })}
        />
      </Row>
    </Part>
  );

const BackSoon = ({ set }: Ways) => {
  const zone = useZone();
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState('');
  const backAt = (until: number) => set({ state: 'back-soon', until });
  const setTime = (): void => {
    const until = nextTime(typed, serverNow(), zone);
    if (until === null) setProblem(words().atWrong);
    else backAt(until);
  };
  return (
    <Part title={words().soon} more={words().soonMore}>
      <Row>
        {SOON_MINUTES.map((minutes) => (
          <Button
            key={minutes}
            label={words().minutes(minutes)}
            onPress={() => backAt(serverNow() + minutes * MINUTE_MS)}
          />
        ))}
      </Row>
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
    </Part>
  );
};

const GoDark = ({ lamp, set, time }: Ways) => {
  const dark = (until: number | null) => () => set({ state: 'dark', until });
  const { opensNext, opensTomorrow, setting } = lamp;
  return (
    <Part title={words().goDark} more={words().goDarkMore}>
      <Row>
        {lamp.isOpen && opensNext !== null && opensNext !== opensTomorrow ? (
          <Button label={words().untilAfter(time(opensNext))} onPress={dark(opensNext)} />
        ) : null}
        {opensTomorrow === null ? null : (
          <Button
            label={words().untilTomorrow(time(opensTomorrow))}
            onPress={dark(opensTomorrow)}
          />
        )}
        {setting.state === 'dark' && setting.until === null ? null : (
          <Button label={words().untilLit} onPress={dark(null)} />
        )}
      </Row>
    </Part>
  );
};

/** The ways to change the porch light, and who of the team is in. */
const LampSheet = (props: { set: (lamp: LampSetting) => void; close: () => void }) => {
  const { close } = props;
  const zone = useZone();
  const now = useNow(MINUTE_MS);
  const lamp = useLive((live) => live.lamp);
  const { saying, under } = useAsTimeGoes((at) => lampInWords(lamp, at, zone));
  if (!lamp) return null;
  const toHours = wayTo('/house/hours', () => {
    close();
    router.navigate('/house/hours');
  });
  const ways: Ways = {
    lamp,
    toHours,
    time: (at) => momentInWords(at, now, zone),
    set: (setting) => {
      props.set(setting);
      close();
    },
  };
  return (
    <Sheet title={words().label} close={close}>
      <View>
        <Text kind="name">{saying}</Text>
        <Text kind="second" tone="slate">
          {under}
        </Text>
      </View>
      <ByHoursAgain {...ways} />
      <LightIt {...ways} />
      <BackSoon {...ways} />
      <GoDark {...ways} />
      <WhoIsIn opensTomorrow={lamp.opensTomorrow} />
      <Button look="bare" label={words().hours} {...toHours} />
    </Sheet>
  );
};

export default LampSheet;

const styles = StyleSheet.create({
  part: { gap: 8, paddingTop: 12, borderTopWidth: 1 },
  time: { flexDirection: 'row', alignItems: 'flex-end', gap: 8 },
  grow: { flex: 1 },
});
