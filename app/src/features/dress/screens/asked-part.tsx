import {
  CARDS_MOST,
  type Card,
  type Cards,
  FIRST_CARDS_MOST,
  withCard,
  withoutCard,
  withStates,
} from '@porch/core/cards';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { Problem, Row } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { offerUndo } from '../../../shell/frame/undo';
import { useCardCounts } from '../data/card-counts';
import { words } from '../words';
import { CardEditor } from './card-editor';
import { CardTables } from './card-tables';
import { CardTree } from './card-tree';
import type { Editing } from './editor';
import { ProposalsPart } from './proposals-part';

const said = () => words().asked;

/** What is asked often at this door: as a tree, or one card of it. */
export const AskedPart = (
  props: Editing & {
    language: string;
  },
) => {
  const { dress, set, look, problemAt, doorId } = props;
  const all = dress.asked;
  const counts = useCardCounts(doorId);
  const [opened, setOpened] = useState<string | null>(null);
  const card = all.cards.find(({ id }) => id === opened);
  const change = (asked: Cards): void => {
    set({ ...dress, asked });
    look({ isOpen: true });
  };
  const fresh = (language: string): Card => ({
    id: nanoid(),
    language,
    question: '',
    answer: '',
    link: '',
    pictureIds: [],
    leads: { to: 'end' },
  });
  const firstCount = all.first.filter(
    ({ id }) => all.cards.find((one) => one.id === id)?.language === props.language,
  ).length;
  const add = (known: Partial<Card> = {}): void => {
    const made = { ...fresh(props.language), ...known };
    const added = withCard(all, made);
    const isFirst = firstCount < FIRST_CARDS_MOST;
    change(isFirst ? withStates(added, made.id, ['lit', 'back-soon', 'dark']) : added);
    setOpened(made.id);
  };
  const addAfter = (before: Card): void => {
    if (before.leads.to !== 'cards') return;
    const made = fresh(before.language);
    const leads = { ...before.leads, ids: [...before.leads.ids, made.id] };
    change(withCard(withCard(all, { ...before, leads }), made));
    setOpened(made.id);
  };
  const drop = (gone: Card): void => {
    setOpened(null);
    change(withoutCard(all, gone.id));
    offerUndo({
      said: said().dropped(gone.question.trim() || said().nameless),
      deedIds: [''],
      undo: () => set({ ...props.now(), asked: all }),
    });
  };
  const hasProblem = (id: string): boolean =>
    ['question', 'answer', 'label', 'link', 'leads'].some((part) =>
      problemAt(`asked.${id}.${part}`),
    );

  if (card) {
    return (
      <CardEditor
        key={card.id}
        {...props}
        card={card}
        change={change}
        addAfter={() => addAfter(card)}
        leave={() => setOpened(null)}
        drop={() => drop(card)}
      />
    );
  }
  return (
    <>
      <Text kind="second" tone="slate">
        {all.cards.length === 0 ? said().none : said().more}
      </Text>
      {all.cards.length > 0 ? (
        <>
          <Text kind="second" tone="slate">
            {said().shownFirst(firstCount, FIRST_CARDS_MOST)}.{' '}
            {all.cards.length > FIRST_CARDS_MOST ? said().searched : said().order}
          </Text>
          <CardTree
            all={all}
            counts={counts}
            open={setOpened}
            hasProblem={hasProblem}
            change={change}
          />
          <Text kind="small" tone="slate">
            {said().enoughMore}
          </Text>
        </>
      ) : null}
      <Problem text={problemAt('asked')} />
      <Problem text={problemAt('asked.first') ? said().tooManyFirst(FIRST_CARDS_MOST) : ''} />
      {all.cards.length < CARDS_MOST ? (
        <Row>
          <Button label={said().add} onPress={() => add()} />
        </Row>
      ) : null}
      {all.cards.length < CARDS_MOST ? (
        <ProposalsPart
          doorId={doorId}
          make={({ question, answer, language }) => add({ question, answer, language })}
        />
      ) : null}
      <CardTables doorId={doorId} language={props.language} all={all} change={change} />
    </>
  );
};
