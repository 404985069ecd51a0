import {
  GREETING_VISITS_MOST,
  GREETINGS_MOST,
  type Greeting,
  newGreeting,
} from '@porch/core/greetings';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Problem, Row } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { offerUndo } from '../../../shell/frame/undo';
import { useGreetingCounts } from '../data/greeting-counts';
import { words } from '../words';
import type { Editing } from './editor';
import { GreetingEditor } from './greeting-editor';

const said = () => words().greetings;

/** Its rules in a line: where, when and to whom it is said. */
const rulesInWords = (greeting: Greeting): string => {
  const { pages, afterSeconds, visits, cameFrom, whileNotLit } = greeting;
  const { rules } = said();
  const isEachVisit = visits.least === 1 && visits.most === null;
  return [
    pages.length === 0 ? rules.all : rules.pages(pages.length),
    rules.after(afterSeconds),
    ...(isEachVisit ? [] : [rules.visits(visits.least, visits.most)]),
    ...(cameFrom.length > 0 ? [rules.cameFrom(cameFrom.join(', '))] : []),
    ...(whileNotLit ? [rules.whileNotLit] : []),
  ].join(' · ');
};

const parts = ['text', 'pages', 'afterSeconds', 'visits', 'cameFrom'];

const GreetingRow = (props: {
  greeting: Greeting;
  counts: { seen: number; answered: number };
  isWrong: boolean;
  open: () => void;
}) => {
  const theme = useTheme();
  const { greeting, counts } = props;
  const text = greeting.text.trim() || said().nameless;
  return (
    <View role="listitem" style={[styles.row, { borderColor: theme.seam }]}>
      <View style={styles.open}>
        <Button
          look="bare"
          label={text}
          accessibilityLabel={said().open(text)}
          onPress={props.open}
        />
      </View>
      <Text kind="second" tone={props.isWrong ? 'brick' : 'slate'}>
        {[
          ...(greeting.isOn ? [] : [said().off]),
          props.isWrong ? said().notRight : rulesInWords(greeting),
        ].join(' · ')}
      </Text>
      <Text kind="second" tone="slate">
        {said().seen(counts.seen, counts.answered)}
      </Text>
    </View>
  );
};

/** What is said before anybody writes at this door: all of it, or one. */
export const GreetingsPart = (
  props: Editing & {
    language: string;
    /** Opens the website with one of them; null: not as things are. */
    tryOn: ((greeting: string) => void) | null;
  },
) => {
  const { dress, set, look, problemAt, doorId } = props;
  const { greetings } = dress;
  const counts = useGreetingCounts(doorId);
  const [opened, setOpened] = useState<string | null>(null);
  const greeting = greetings.find(({ id }) => id === opened);
  const open = (id: string | null): void => {
    setOpened(id);
    look({ isOpen: false, greeting: id });
  };
  const change = (next: Greeting[]): void => set({ ...dress, greetings: next });
  const add = (): void => {
    const made = newGreeting(nanoid(), props.language);
    change([...greetings, made]);
    open(made.id);
  };
  const drop = (gone: Greeting): void => {
    open(null);
    change(greetings.filter(({ id }) => id !== gone.id));
    offerUndo({
      said: said().dropped(gone.text.trim() || said().nameless),
      deedIds: [''],
      undo: () => {
        const now = props.now();
        const others = now.greetings.filter(({ id }) => id !== gone.id);
        set({ ...now, greetings: [...others, gone] });
      },
    });
  };

  if (greeting) {
    return (
      <GreetingEditor
        key={greeting.id}
        {...props}
        greeting={greeting}
        change={(next) => change(greetings.map((one) => (one.id === next.id ? next : one)))}
        leave={() => open(null)}
        drop={() => drop(greeting)}
        visitsProblem={
          problemAt(`greetings.${greeting.id}.visits`)
            ? said().visitsProblem(GREETING_VISITS_MOST)
            : ''
        }
      />
    );
  }
  return (
    <>
      <Text kind="second" tone="slate">
        {greetings.length === 0 ? said().none : said().more}
      </Text>
      {greetings.length > 0 ? (
        <>
          <View role="list" aria-label={words().parts.greetings}>
            {greetings.map((one) => (
              <GreetingRow
                key={one.id}
                greeting={one}
                counts={counts.get(one.id) ?? { seen: 0, answered: 0 }}
                isWrong={parts.some((part) => problemAt(`greetings.${one.id}.${part}`) !== '')}
                open={() => open(one.id)}
              />
            ))}
          </View>
          <Text kind="small" tone="slate">
            {said().countsMore}
          </Text>
        </>
      ) : null}
      <Problem text={problemAt('greetings')} />
      {greetings.length < GREETINGS_MOST ? (
        <Row>
          <Button label={said().add} onPress={add} />
        </Row>
      ) : null}
    </>
  );
};

const styles = StyleSheet.create({
  row: { gap: 2, paddingVertical: 10, borderBottomWidth: 1 },
  // The words of the button stand where those below it do.
  open: { marginHorizontal: -10, alignItems: 'flex-start' },
});
