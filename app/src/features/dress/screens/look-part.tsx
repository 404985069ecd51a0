import { bothColours, type ReadyColours, readyColours, toHex } from '@porch/core/colours';
import { panelSizes, phonePlates, plateShapes, textSizes, typefaces } from '@porch/core/dress';
import { contrast } from '@porch/core/theme';
import { Pressable, StyleSheet, View } from 'react-native';
import { byArrows } from '../../../kit/by-arrows';
import { bySpace } from '../../../kit/by-space';
import { drawn } from '../../../kit/drawn/in-own-colours';
import { Choice } from '../../../kit/fields/choice';
import { Field } from '../../../kit/fields/field';
import { Problem, Row } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { corner, touch } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { problemOf } from '../../../shell/session/problems';
import { useColoursOfPicture } from '../data/dressing';
import { words } from '../words';
import type { Editing } from './editor';

const said = () => words().look;

const readyNames = Object.keys(readyColours) as ReadyColours[];

/** One of the sets of colours that are ready. */
const ReadySet = (props: {
  name: ReadyColours;
  at: number;
  /** -1: the colours are of no set. */
  chosenAt: number;
  choose: (name: ReadyColours) => void;
}) => {
  const theme = useTheme();
  const { name } = props;
  const { ground, accent } = readyColours[name];
  const isChosen = props.at === props.chosenAt;
  const choose = (): void => props.choose(name);
  return (
    <Pressable
      role="radio"
      aria-checked={isChosen}
      onPress={choose}
      {...bySpace(choose)}
      {...byArrows(props.at, props.chosenAt, readyNames.length, (at) => {
        const next = readyNames[at];
        if (next) props.choose(next);
      })}
      style={[
        styles.set,
        { borderColor: isChosen ? theme.ink : theme.edge },
        isChosen ? styles.chosen : null,
      ]}
    >
      <View
        {...drawn}
        style={[styles.sample, { backgroundColor: ground, borderColor: theme.edge }]}
      >
        <View style={[styles.accent, { backgroundColor: accent }]} />
      </View>
      <Text kind="label">{said().sets[name]}</Text>
    </Pressable>
  );
};

const ColourField = (props: {
  label: string;
  value: string;
  problem: string;
  set: (value: string) => void;
}) => (
  <View style={styles.colour}>
    <View style={styles.grow}>
      <Field
        label={props.label}
        value={props.value}
        maxLength={20}
        autoCapitalize="characters"
        problem={props.problem}
        onChangeText={props.set}
      />
    </View>
    <input
      type="color"
      aria-label={said().pick(props.label)}
      value={toHex(props.value) ?? '#000000'}
      onChange={(event) => props.set(event.currentTarget.value.toUpperCase())}
      style={{ width: touch, height: touch, padding: 2, border: 0, background: 'none' }}
    />
  </View>
);

const PixelField = (props: {
  label: string;
  value: number;
  problem: string;
  set: (value: number) => void;
}) => (
  <Field
    label={props.label}
    value={Number.isNaN(props.value) ? '' : String(props.value)}
    inputMode="numeric"
    maxLength={4}
    problem={props.problem}
    onChangeText={(text) => props.set(text.trim() === '' ? Number.NaN : Number(text))}
  />
);

/** Colours, shape and place of the door. */
export const LookPart = ({ dress, set, problemAt, look: show }: Editing) => {
  const { look } = dress;
  const fromPicture = useColoursOfPicture();
  const change = (change: Partial<typeof look>): void =>
    set({ ...dress, look: { ...look, ...change } });
  /** The same for what is seen of the closed door, or of the open one. */
  const changeClosed = (next: Partial<typeof look>): void => {
    change(next);
    show({ isOpen: false });
  };
  const changeOpen = (next: Partial<typeof look>): void => {
    change(next);
    show({ isOpen: true });
  };
  const readyAt = readyNames.findIndex(
    (name) =>
      look.ground === readyColours[name].ground && look.accent === readyColours[name].accent,
  );
  const ground = toHex(look.ground);
  const accent = toHex(look.accent);
  const { day } = ground && accent ? bothColours({ ground, accent }) : { day: null };
  const ratio = (one: string, other: string): string => contrast(one, other).toFixed(1);
  return (
    <>
      <View role="radiogroup" aria-label={said().ready} style={styles.group}>
        <Text kind="label">{said().ready}</Text>
        <View style={styles.sets}>
          {readyNames.map((name, at) => (
            <ReadySet
              key={name}
              name={name}
              at={at}
              chosenAt={readyAt}
              choose={(next) => change(readyColours[next])}
            />
          ))}
        </View>
      </View>
      <Row>
        <Button
          label={said().fromPicture}
          disabled={fromPicture.isPending}
          onPress={() => fromPicture.mutate(undefined, { onSuccess: change })}
        />
      </Row>
      <Problem text={fromPicture.error ? problemOf(fromPicture.error) : ''} />
      <ColourField
        label={said().ground}
        value={look.ground}
        problem={problemAt('look.ground')}
        set={(value) => change({ ground: value })}
      />
      <ColourField
        label={said().accent}
        value={look.accent}
        problem={problemAt('look.accent')}
        set={(value) => change({ accent: value })}
      />
      <Text kind="second" tone="slate">
        {said().colourMore}
      </Text>
      {day ? (
        <Text kind="second" tone="moss" role="status">
          {`${said().contrast(ratio(day.ink, day.ground), ratio(day.onAccent, day.accent))}. ${said().contrastMore}`}
        </Text>
      ) : null}
      <Choice
        label={said().plate}
        options={plateShapes.map((shape) => [shape, said().plates[shape]] as const)}
        value={look.plate}
        onChange={(plate) => changeClosed({ plate })}
      />
      <Choice
        label={said().onPhones}
        options={phonePlates.map((size) => [size, said().phonePlates[size]] as const)}
        value={look.onPhones}
        onChange={(onPhones) => changeClosed({ onPhones })}
      />
      <Choice
        label={said().side}
        options={[
          ['right', said().sides.right],
          ['left', said().sides.left],
        ]}
        value={look.side}
        onChange={(side) => changeClosed({ side })}
      />
      <PixelField
        label={said().sidePx}
        value={look.sidePx}
        problem={problemAt('look.sidePx')}
        set={(sidePx) => changeClosed({ sidePx })}
      />
      <PixelField
        label={said().bottomPx}
        value={look.bottomPx}
        problem={problemAt('look.bottomPx')}
        set={(bottomPx) => changeClosed({ bottomPx })}
      />
      <Choice
        label={said().face}
        options={[
          ['none', said().faces.none],
          ['picture', said().faces.picture],
          ['initials', said().faces.initials],
        ]}
        value={look.face}
        onChange={(face) => change({ face })}
      />
      <Choice
        label={said().type}
        options={typefaces.map((type) => [type, said().types[type]] as const)}
        value={look.type}
        onChange={(type) => change({ type })}
      />
      <Choice
        label={said().panel}
        options={panelSizes.map((size) => [size, said().panels[size]] as const)}
        value={look.panel}
        onChange={(panel) => changeOpen({ panel })}
      />
      <Choice
        label={said().textSize}
        options={textSizes.map((size) => [size, said().textSizes[size]] as const)}
        value={look.textSize}
        onChange={(textSize) => change({ textSize })}
      />
    </>
  );
};

const styles = StyleSheet.create({
  group: { gap: 6 },
  sets: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
  set: {
    width: 104,
    minHeight: touch,
    padding: 8,
    gap: 6,
    alignItems: 'center',
    borderWidth: 1,
    borderRadius: corner,
  },
  chosen: { borderWidth: 3, padding: 6 },
  sample: { width: 72, height: 40, borderWidth: 1, justifyContent: 'flex-end' },
  accent: { height: 14, width: 40, alignSelf: 'flex-end' },
  colour: { flexDirection: 'row', alignItems: 'flex-end', gap: 8 },
  grow: { flex: 1 },
});
