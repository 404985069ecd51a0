import type { Door } from '@porch/contract/doors';
import {
  alertDeeds,
  type Doorbell,
  messageChoices,
  quietChoices,
  SHORT_REPLY_LONGEST,
  sounds,
} from '@porch/core/ringing';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Choice } from '../../../kit/fields/choice';
import { Field } from '../../../kit/fields/field';
import { Done, Problem, Row, Section } from '../../../kit/fields/form';
import { LinesField } from '../../../kit/fields/lines-field';
import { MomentField } from '../../../kit/fields/moment-field';
import { Select } from '../../../kit/fields/select';
import { Tick } from '../../../kit/fields/tick';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { kitWords } from '../../../kit/words';
import { playSound } from '../../../shell/live/bell';
import { useHouse } from '../../../shell/session/house';
import { problemOf } from '../../../shell/session/problems';
import { useChangeDoorbell } from '../data/doorbell';
import { AlertPreview } from '../parts/alert-preview';
import { words } from '../words';

/** A doorbell, and a way to change a part of it. */
interface Wished {
  bell: Doorbell;
  change: (part: Partial<Doorbell>) => void;
}

const options = <Value extends string>(
  values: readonly Value[],
  named: Record<Value, string>,
): (readonly [Value, string])[] => values.map((value) => [value, named[value]] as const);

const Doors = ({ doors, bell, change }: Wished & { doors: readonly Door[] }) => {
  const all = doors.map(({ id }) => id);
  const chosen = bell.doorIds ?? all;
  if (doors.length < 2) return null;
  const set = (id: string, isOn: boolean): void => {
    const next = isOn ? [...chosen, id] : chosen.filter((one) => one !== id);
    change({ doorIds: next.length === all.length ? null : next });
  };
  return (
    <View role="group" aria-label={words().what.doors} style={styles.group}>
      <Text kind="label">{words().what.doors}</Text>
      {doors.map(({ id, name }) => (
        <Tick key={id} label={name} isOn={chosen.includes(id)} onChange={(isOn) => set(id, isOn)} />
      ))}
    </View>
  );
};

const isPage = (line: string): boolean => /^\/[^?#\s]*$/.test(line);

const Pages = ({ bell, change }: Wished) => {
  const [lines, setLines] = useState<readonly string[]>(bell.pages);
  const [isSaved, setSaved] = useState(false);
  const isWrong = !lines.every((line) => isPage(line.trim()));
  const save = (): void => {
    if (isWrong) return;
    change({ pages: lines.map((line) => line.trim()) });
    setSaved(true);
  };
  return (
    <View style={styles.group}>
      <LinesField
        label={words().what.pages}
        more={words().what.pagesMore}
        lines={lines}
        autoCapitalize="none"
        problem={isWrong ? words().what.pagesWrong : ''}
        onChangeLines={(next) => {
          setLines(next);
          setSaved(false);
        }}
      />
      <Row>
        <Button label={kitWords().save} disabled={isWrong} onPress={save} />
        {isSaved ? <Done text={kitWords().saved} /> : null}
      </Row>
    </View>
  );
};

const What = (wished: Wished) => {
  const { bell, change } = wished;
  const doors = useHouse().data?.doors ?? [];
  const said = words().what;
  return (
    <Section title={said.title}>
      <Choice
        label={said.messages}
        options={options(messageChoices, said.choices)}
        value={bell.messages}
        onChange={(messages) => change({ messages })}
      />
      <Tick label={said.notes} isOn={bell.notes} onChange={(notes) => change({ notes })} />
      <Tick
        label={said.comesBack}
        isOn={bell.comesBack}
        onChange={(comesBack) => change({ comesBack })}
      />
      <Doors doors={doors.filter(({ isClosed }) => !isClosed)} {...wished} />
      <Pages {...wished} />
    </Section>
  );
};

const HOUR_MINUTES = 60;

/** 90 → "01:30". */
const toTime = (minutes: number): string =>
  [Math.floor(minutes / HOUR_MINUTES), minutes % HOUR_MINUTES]
    .map((part) => String(part).padStart(2, '0'))
    .join(':');

/** "01:30" → 90; null while it is not whole. */
const fromTime = (time: string): number | null => {
  const [, hours, minutes] = /^(\d{2}):(\d{2})/.exec(time) ?? [];
  return hours && minutes ? Number(hours) * HOUR_MINUTES + Number(minutes) : null;
};

const zonesOf = (known: string): (readonly [string, string])[] =>
  [...new Set([known, ...(Intl.supportedValuesOf?.('timeZone') ?? [])])].map((zone) => [
    zone,
    zone.replaceAll('_', ' '),
  ]);

const Quiet = ({ bell, change }: Wished) => {
  const said = words().quiet;
  const { quiet } = bell;
  const set = (part: Partial<Doorbell['quiet']>) => change({ quiet: { ...quiet, ...part } });
  const setTime = (which: 'from' | 'to') => (time: string) => {
    const minutes = fromTime(time);
    if (minutes !== null) set({ [which]: minutes });
  };
  return (
    <Section title={said.title}>
      <Tick label={said.isOn} isOn={quiet.isOn} onChange={(isOn) => set({ isOn })} />
      {quiet.isOn ? (
        <>
          <View style={styles.times}>
            <MomentField
              kind="time"
              label={said.from}
              value={toTime(quiet.from)}
              onChange={setTime('from')}
            />
            <MomentField
              kind="time"
              label={said.to}
              value={toTime(quiet.to)}
              onChange={setTime('to')}
            />
          </View>
          <Select
            label={said.zone}
            options={zonesOf(quiet.zone)}
            value={quiet.zone}
            onChange={(zone) => set({ zone })}
          />
          <Choice
            label={said.mayRing}
            options={options(quietChoices, said.choices)}
            value={quiet.mayRing}
            onChange={(mayRing) => set({ mayRing })}
          />
        </>
      ) : null}
    </Section>
  );
};

const SILENT = 'silent';

const ShortReply = ({ bell, change }: Wished) => {
  const [typed, setTyped] = useState(bell.shortReply || words().how.shortReplyHint);
  const isSaved = bell.shortReply === typed.trim();
  return (
    <View style={styles.group}>
      <Field
        label={words().how.shortReply}
        more={words().how.shortReplyMore}
        value={typed}
        maxLength={SHORT_REPLY_LONGEST}
        onChangeText={setTyped}
      />
      <Row>
        <Button
          label={kitWords().save}
          disabled={!typed.trim()}
          onPress={() => change({ shortReply: typed.trim() })}
        />
        {isSaved ? <Done text={kitWords().saved} /> : null}
      </Row>
    </View>
  );
};

const How = (wished: Wished) => {
  const { bell, change } = wished;
  const said = words().how;
  const setButton = (at: 0 | 1) => (deed: string) => {
    const chosen = alertDeeds.find((one) => one === deed);
    if (!chosen) return;
    const buttons: Doorbell['buttons'] = [...bell.buttons];
    buttons[at] = chosen;
    // A button that says something has something to say from its first moment.
    const shortReply = bell.shortReply || (chosen === 'short-reply' ? said.shortReplyHint : '');
    change({ buttons, shortReply });
  };
  return (
    <Section title={said.title}>
      <Choice
        label={said.sound}
        options={[...options(sounds, said.sounds), [SILENT, said.silent] as const]}
        value={bell.sound ?? SILENT}
        onChange={(sound) => {
          change({ sound: sound === SILENT ? null : sound });
          if (sound !== SILENT) playSound(sound);
        }}
      />
      <Text kind="second" tone="slate">
        {said.soundMore}
      </Text>
      {bell.sound ? (
        <Row>
          <Button
            look="bare"
            label={said.hear}
            onPress={() => bell.sound && playSound(bell.sound)}
          />
        </Row>
      ) : null}
      <Tick
        label={said.vibrates}
        more={said.vibratesMore}
        isOn={bell.vibrates}
        onChange={(vibrates) => change({ vibrates })}
      />
      <Tick
        label={said.hidesWords}
        isOn={bell.hidesWords}
        onChange={(hidesWords) => change({ hidesWords })}
      />
      <View role="group" aria-label={said.buttons} style={styles.group}>
        <Text kind="label">{said.buttons}</Text>
        <Text kind="second" tone="slate">
          {said.buttonsMore}
        </Text>
        <View style={styles.times}>
          <Select
            label={said.first}
            options={options(alertDeeds, said.deeds)}
            value={bell.buttons[0]}
            onChange={setButton(0)}
          />
          <Select
            label={said.second}
            options={options(alertDeeds, said.deeds)}
            value={bell.buttons[1]}
            onChange={setButton(1)}
          />
        </View>
      </View>
      {bell.buttons.includes('short-reply') ? <ShortReply {...wished} /> : null}
      <AlertPreview bell={bell} />
    </Section>
  );
};

/** How whoever is signed in wants to be rung; each change holds at once. */
export const Wishes = ({ bell }: { bell: Doorbell }) => {
  const { mutate, error } = useChangeDoorbell();
  const wished = { bell, change: (part: Partial<Doorbell>) => mutate({ ...bell, ...part }) };
  return (
    <>
      <Problem text={problemOf(error)} />
      <What {...wished} />
      <Quiet {...wished} />
      <How {...wished} />
    </>
  );
};

const styles = StyleSheet.create({
  group: { gap: 8 },
  times: { flexDirection: 'row', flexWrap: 'wrap', gap: 16 },
});
