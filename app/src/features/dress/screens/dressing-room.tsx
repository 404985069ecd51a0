import type { Door } from '@porch/contract/doors';
import type { House } from '@porch/contract/house';
import { languagesOf } from '@porch/core/dress';
import { router } from 'expo-router';
import { useMemo, useState } from 'react';
import { Linking, ScrollView, StyleSheet, View } from 'react-native';
import { Choice } from '../../../kit/fields/choice';
import { Done, Problem, Row } from '../../../kit/fields/form';
import { Select } from '../../../kit/fields/select';
import { languageName } from '../../../kit/names';
import { Button } from '../../../kit/press';
import { Failed, RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { useWide } from '../../../kit/theme/use-wide';
import { pictureUrl } from '../../../shell/pictures/addresses';
import { useHouse } from '../../../shell/session/house';
import { problemOf } from '../../../shell/session/problems';
import { useDressing, useTrial } from '../data/dressing';
import type { Work, Workbench } from '../data/workbench';
import { words } from '../words';
import { AskedPart } from './asked-part';
import { type Editing, type LampShown, type Looked, previewOf, shownBusiness } from './editor';
import { GreetingsPart } from './greetings-part';
import { GuestBookPart } from './guest-book-part';
import { LinksPart } from './links-part';
import { LookPart } from './look-part';
import { Meanwhile } from './meanwhile';
import { PeoplePart } from './people-part';
import { Preview, type ScreenShown } from './preview';
import { type TextState, TextsPart } from './texts-part';
import { WherePart } from './where-part';

const parts = [
  'look',
  'people',
  'texts',
  'links',
  'where',
  'guestBook',
  'asked',
  'greetings',
] as const;
type Part = (typeof parts)[number];

const isPart = (text: unknown): text is Part => parts.some((part) => part === text);

const Status = ({ work }: { work: Work }) => {
  const { problems, isSaving, isUnsaved, server } = work;
  const text =
    problems.length > 0
      ? words().status.wrong(problems.length)
      : isSaving
        ? words().status.saving
        : isUnsaved
          ? words().status.waiting
          : server?.isDraft
            ? words().status.saved
            : words().status.published;
  return (
    <Text kind="second" tone={problems.length > 0 ? 'brick' : 'slate'} role="status">
      {text}
    </Text>
  );
};

/** Opens the owner's website with the draft, or with one greeting of it. */
const useTryOn = (door: Door, work: Work, bench: Workbench) => {
  const trial = useTrial(door.id);
  const tryOn = async (greeting?: string): Promise<void> => {
    // Opened at once, while the browser still takes it for an answer to the tap.
    const tab = window.open('', '_blank');
    await bench.save();
    trial.mutate(greeting, {
      onSuccess: ({ url }) => {
        if (tab) tab.location.href = url;
        else void Linking.openURL(url);
      },
      onError: () => tab?.close(),
    });
  };
  const isReady = work.problems.length === 0 && work.clashes.length === 0;
  return { tryOn, isReady, problem: trial.error ? problemOf(trial.error) : '' };
};
type Trying = ReturnType<typeof useTryOn>;

const Deeds = (props: { work: Work; bench: Workbench; trying: Trying }) => {
  const { work, bench } = props;
  const { tryOn, isReady, problem } = props.trying;
  const canPublish = isReady && Boolean(work.isUnsaved || work.server?.isDraft);
  return (
    <View style={styles.deeds}>
      <Status work={work} />
      {work.done ? (
        <Done text={work.done === 'published' ? words().published : words().undone} />
      ) : null}
      <Problem text={work.error ? problemOf(work.error) : problem} />
      <Row>
        <Button
          look="main"
          label={words().publish}
          disabled={!canPublish}
          onPress={() => void bench.publish()}
        />
        <Button label={words().tryOn} disabled={!isReady} onPress={() => void tryOn()} />
        {work.server?.canUndo ? (
          <Button look="bare" label={words().undo} onPress={() => void bench.undo()} />
        ) : null}
      </Row>
      <Text kind="small" tone="slate">
        {words().tryOnMore}
      </Text>
    </View>
  );
};

/** How the preview is looked at: which light, which screen, open or closed, in which language. */
const useShowing = (fallback: string, lampAtFirst: LampShown) => {
  const [lamp, setLamp] = useState(lampAtFirst);
  const [size, setSize] = useState<ScreenShown>('phone');
  const [isOpen, setOpen] = useState(true);
  const [language, setLanguage] = useState(fallback);
  const [greeting, setGreeting] = useState<string | null>(null);
  return {
    lamp,
    setLamp,
    size,
    setSize,
    isOpen,
    setOpen,
    language,
    setLanguage,
    greeting,
    setGreeting,
  };
};
type Showing = ReturnType<typeof useShowing>;

const Looking = (props: { door: Door; house: House; work: Work; showing: Showing }) => {
  const { door, house, work, showing } = props;
  const isWide = useWide();
  const { dress } = work;
  const { lamp, language, greeting } = showing;
  const { business, team, doors } = house;
  const preview = useMemo(() => {
    // Nothing is drawn from a draft that is not right: the last right one stays.
    if (!dress || !business) return null;
    const personOf = (memberId: string) => {
      const found = team.find(({ id }) => id === memberId);
      const name = found && (found.publicName || found.name);
      return name ? { name, face: pictureUrl(found.pictureId) } : undefined;
    };
    const { publicId } = door;
    const shown = { publicId, language, lamp, now: Date.now(), greeting, personOf };
    const ways = doors.filter(({ isOffered, isClosed }) => isOffered && !isClosed);
    const names = ways.map(({ name }) => name);
    return previewOf(dress, shownBusiness(business, team, door, names), shown);
  }, [dress, business, team, doors, door, language, lamp, greeting]);
  const [last, setLast] = useState(preview);
  const drawn = work.problems.length === 0 ? preview : (last ?? preview);
  if (work.problems.length === 0 && preview && preview !== last) setLast(preview);
  if (!drawn || !dress) return null;
  return (
    <View style={styles.looking}>
      <Row>
        <Choice
          label={words().state}
          isLabelHidden={!isWide}
          options={[
            ['lit', words().states.lit],
            ['soon', words().states.soon],
            ['dark', words().states.dark],
          ]}
          value={lamp}
          onChange={showing.setLamp}
        />
        <Choice
          label={words().size}
          isLabelHidden={!isWide}
          options={[
            ['phone', words().sizes.phone],
            ['wide', words().sizes.wide],
          ]}
          value={showing.size}
          onChange={showing.setSize}
        />
        <Select
          label={words().language}
          options={languagesOf(dress).map((code) => [code, languageName(code)])}
          value={language}
          onChange={showing.setLanguage}
        />
      </Row>
      <Preview
        publicId={door.publicId}
        size={showing.size}
        isOpen={showing.isOpen}
        setOpen={showing.setOpen}
        configuration={drawn.configuration}
        view={drawn.view}
      />
    </View>
  );
};

const problemText = (work: Work, field: string): string => {
  const found = work.problems.find((one) => one.field === field);
  return found ? words().problems[found.code](found.limit ?? 0) : '';
};

const Dressing = (props: {
  door: Door;
  house: House;
  work: Work;
  bench: Workbench;
  asked: Part;
}) => {
  const theme = useTheme();
  const isWide = useWide();
  const { work, bench, door, house } = props;
  const trying = useTryOn(door, work, bench);
  const [part, setPart] = useState<Part>(props.asked);
  const [isLooking, setLooking] = useState(false);
  const [textState, setTextState] = useState<TextState>(props.asked === 'texts' ? 'dark' : 'lit');
  const showing = useShowing(
    work.dress?.fallback ?? 'en',
    props.asked === 'texts' ? 'dark' : 'lit',
  );
  if (!work.dress) return null;
  const { dress } = work;
  const editing: Editing = {
    doorId: door.id,
    dress,
    now: () => bench.now().dress ?? dress,
    set: bench.change,
    problemAt: (field) => problemText(work, field),
    look: ({ lamp, isOpen, greeting }: Partial<Looked>) => {
      if (greeting !== undefined) showing.setGreeting(greeting);
      if (lamp) showing.setLamp(lamp);
      if (isOpen !== undefined) showing.setOpen(isOpen);
    },
  };
  const texts = {
    ...editing,
    language: showing.language,
    setLanguage: showing.setLanguage,
    state: textState,
    setState: (state: TextState) => {
      setTextState(state);
      if (state !== 'all') showing.setLamp(state);
    },
  };
  const views: Record<Part, () => React.ReactNode> = {
    look: () => <LookPart {...editing} />,
    people: () => <PeoplePart {...editing} />,
    texts: () => <TextsPart {...texts} />,
    links: () => <LinksPart {...editing} />,
    where: () => <WherePart {...editing} />,
    guestBook: () => <GuestBookPart {...editing} />,
    asked: () => <AskedPart {...editing} language={showing.language} />,
    greetings: () => (
      <GreetingsPart
        {...editing}
        language={showing.language}
        tryOn={trying.isReady ? (greeting) => void trying.tryOn(greeting) : null}
      />
    ),
  };
  const looking = <Looking door={door} house={house} work={work} showing={showing} />;
  const editor = (
    <>
      <Meanwhile work={work} bench={bench} />
      <Choice
        label={words().partsLabel}
        isLabelHidden
        options={parts.map((one) => [one, words().parts[one]] as const)}
        value={part}
        onChange={(next) => {
          setPart(next);
          showing.setGreeting(null);
          if (next === 'texts' && textState !== 'all') showing.setLamp(textState);
        }}
      />
      {views[part]()}
    </>
  );
  const head = (
    <>
      <Row>
        <Button
          look="bare"
          label={`‹ ${door.name}`}
          onPress={() => router.navigate(`/house/door/${door.id}`)}
        />
      </Row>
      <Text kind="large" role="heading" aria-level={1}>
        {words().title}
      </Text>
    </>
  );
  if (isWide) {
    return (
      <View style={styles.sides}>
        <View style={[styles.side, { borderColor: theme.seam }]}>
          <ScrollView contentContainerStyle={styles.inside}>
            {head}
            {editor}
          </ScrollView>
          <View style={[styles.foot, { borderColor: theme.ink }]}>
            <Deeds work={work} bench={bench} trying={trying} />
          </View>
        </View>
        <ScrollView style={styles.grow} contentContainerStyle={styles.inside}>
          {looking}
        </ScrollView>
      </View>
    );
  }
  return (
    <View style={styles.grow}>
      <ScrollView contentContainerStyle={styles.inside}>
        {isLooking ? null : head}
        {isLooking ? looking : editor}
        {isLooking ? null : <Deeds work={work} bench={bench} trying={trying} />}
      </ScrollView>
      <View style={[styles.foot, { borderColor: theme.ink }]}>
        <Button
          label={isLooking ? words().edit : words().preview}
          onPress={() => setLooking(!isLooking)}
        />
      </View>
    </View>
  );
};

/** Where a website door is dressed, with the real thing beside it before it counts. */
export const DressingRoom = ({ id, asked }: { id: string; asked?: string }) => {
  const { data: house } = useHouse();
  const { bench, work } = useDressing(id);
  const door = house?.doors.find((one) => one.id === id);
  if (work.error && !work.dress) return <Failed retry={() => void bench.open()} />;
  if (!house || !door || !work.dress) return <RowsComing />;
  return (
    <Dressing
      door={door}
      house={house}
      work={work}
      bench={bench}
      asked={isPart(asked) ? asked : 'look'}
    />
  );
};

const styles = StyleSheet.create({
  sides: { flex: 1, flexDirection: 'row' },
  side: { width: 460, borderRightWidth: 1 },
  inside: { padding: 16, gap: 16, width: '100%', maxWidth: 1_140, alignSelf: 'center' },
  grow: { flex: 1, minWidth: 0 },
  foot: { padding: 12, borderTopWidth: 2 },
  deeds: { gap: 8 },
  looking: { gap: 12 },
});
