import {
  CARD_PICTURES_MOST,
  CARDS_MOST,
  type Card,
  type Cards,
  FIRST_CARDS_MOST,
  FURTHER_MOST,
  type Leads,
  withCard,
  withStates,
} from '@porch/core/cards';
import { type Asks, askedFields } from '@porch/core/conversation';
import { languagesOf } from '@porch/core/dress';
import type { LampState } from '@porch/core/lamp';
import X from 'lucide-react-native/icons/x';
import { StyleSheet, View } from 'react-native';
import { Field } from '../../../kit/fields/field';
import { Problem, Row } from '../../../kit/fields/form';
import { FreshField } from '../../../kit/fields/fresh-field';
import { Select } from '../../../kit/fields/select';
import { Tick } from '../../../kit/fields/tick';
import { languageName } from '../../../kit/names';
import { Button, GlyphButton } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { PicturesField } from '../../../shell/pictures/pictures-field';
import { useHouse } from '../../../shell/session/house';
import { LookedThrough } from '../../writing/parts/late';
import { words } from '../words';
import type { Editing } from './editor';

const said = () => words().asked;

const lampStates = ['lit', 'back-soon', 'dark'] as const satisfies readonly LampState[];

interface Props extends Editing {
  card: Card;
  change: (all: Cards) => void;
  /** Adds a card that this one leads on to, and opens it. */
  addAfter: () => void;
  drop: () => void;
  leave: () => void;
}

const questionOf = (all: Cards, id: string): string =>
  all.cards.find((card) => card.id === id)?.question.trim() || said().nameless;

/** While which light it is shown first; in no state it is not. */
const States = ({ dress, card, change, problemAt }: Props) => {
  const all = dress.asked;
  const states = all.first.find(({ id }) => id === card.id)?.states ?? [];
  const flip = (state: LampState, isOn: boolean): void => {
    const next = lampStates.filter((one) => (one === state ? isOn : states.includes(one)));
    change(withStates(all, card.id, next));
  };
  return (
    <View role="group" aria-label={said().states}>
      <Text kind="label">{said().states}</Text>
      {lampStates.map((state) => (
        <Tick
          key={state}
          label={words().states[state === 'back-soon' ? 'soon' : state]}
          isOn={states.includes(state)}
          onChange={(isOn) => flip(state, isOn)}
        />
      ))}
      <Text kind="small" tone="slate">
        {said().statesMore}
      </Text>
      <Problem text={problemAt('asked.first') ? said().tooManyFirst(FIRST_CARDS_MOST) : ''} />
    </View>
  );
};

const Further = (
  props: Props & { leads: Extract<Leads, { to: 'cards' }>; put: (leads: Leads) => void },
) => {
  const theme = useTheme();
  const { dress, card, leads, put } = props;
  const all = dress.asked;
  const choices = all.cards.filter(
    ({ id, language }) => id !== card.id && language === card.language && !leads.ids.includes(id),
  );
  const canAdd = leads.ids.length < FURTHER_MOST;
  return (
    <View role="group" aria-label={said().further} style={styles.part}>
      {leads.ids.map((id) => (
        <View key={id} style={styles.further}>
          <Text style={styles.grow}>{questionOf(all, id)}</Text>
          <GlyphButton
            label={said().dropFurther(questionOf(all, id))}
            onPress={() => put({ ...leads, ids: leads.ids.filter((one) => one !== id) })}
          >
            <X size={20} color={theme.ink} aria-hidden />
          </GlyphButton>
        </View>
      ))}
      {choices.length > 0 && canAdd ? (
        <Select
          label={said().addFurther}
          options={[
            ['', said().choose],
            ...choices.map(({ id }): [string, string] => [id, questionOf(all, id)]),
          ]}
          value=""
          onChange={(id) => {
            if (id) put({ ...leads, ids: [...leads.ids, id] });
          }}
        />
      ) : null}
      {canAdd && all.cards.length < CARDS_MOST ? (
        <Row>
          <Button label={said().newFurther} onPress={props.addAfter} />
        </Row>
      ) : null}
    </View>
  );
};

const Asking = (
  props: Props & { leads: Extract<Leads, { to: 'ask' }>; put: (leads: Leads) => void },
) => {
  const { dress, card, leads, put, problemAt } = props;
  const all = dress.asked;
  const choices = all.cards.filter(
    ({ id, language }) => id !== card.id && language === card.language,
  );
  return (
    <View role="group" aria-label={said().asks} style={styles.part}>
      <Select
        label={said().asks}
        options={askedFields.map((field): [string, string] => [field, said().fields[field]])}
        value={leads.asks.field}
        onChange={(field) =>
          put({ ...leads, asks: { ...leads.asks, field: field as Asks['field'] } })
        }
      />
      {leads.asks.field === 'own' ? (
        <Field
          label={said().label}
          more={said().labelMore}
          value={leads.asks.label}
          maxLength={200}
          problem={problemAt(`asked.${card.id}.label`)}
          onChangeText={(label) => put({ ...leads, asks: { ...leads.asks, label } })}
        />
      ) : null}
      <Select
        label={said().next}
        options={[
          ['', said().nothing],
          ...choices.map(({ id }): [string, string] => [id, questionOf(all, id)]),
        ]}
        value={leads.next ?? ''}
        onChange={(next) => put({ ...leads, next: next || null })}
      />
    </View>
  );
};

const Passing = (props: { leads: Extract<Leads, { to: 'pass' }>; put: (leads: Leads) => void }) => {
  const { memberId } = props.leads;
  const team = (useHouse().data?.team ?? []).filter(({ hasLeft }) => !hasLeft);
  const isThere = team.some(({ id }) => id === memberId);
  return (
    <Select
      label={said().whom}
      more={isThere ? said().whomMore : said().leftMore}
      options={[
        ...(isThere ? [] : [[memberId, said().left] as const]),
        ...team.map(({ id, name }) => [id, name] as const),
      ]}
      value={memberId}
      onChange={(next) => props.put({ to: 'pass', memberId: next })}
    />
  );
};

/** What follows after the answer. */
const Follows = (props: Props & { put: (part: Partial<Card>) => void }) => {
  const { card, put, problemAt } = props;
  const { leads } = card;
  const team = useHouse().data?.team ?? [];
  const begin: Record<Leads['to'], () => Leads> = {
    end: () => ({ to: 'end' }),
    cards: () => ({ to: 'cards', ids: [] }),
    ask: () => ({ to: 'ask', asks: { field: 'own', label: '' }, next: null }),
    pass: () => ({ to: 'pass', memberId: team.find(({ hasLeft }) => !hasLeft)?.id ?? '' }),
  };
  const set = (next: Leads): void => put({ leads: next });
  return (
    <View style={styles.part}>
      <Select
        label={said().leads}
        more={said().person}
        options={Object.entries(said().leadsTo)}
        value={leads.to}
        onChange={(to) => set(begin[to as Leads['to']]())}
      />
      {leads.to === 'cards' ? <Further {...props} leads={leads} put={set} /> : null}
      {leads.to === 'ask' ? <Asking {...props} leads={leads} put={set} /> : null}
      {leads.to === 'pass' ? <Passing leads={leads} put={set} /> : null}
      <Problem text={problemAt(`asked.${card.id}.leads`)} />
    </View>
  );
};

/** One question that is asked often: its answer, when it is shown, and what follows. */
export const CardEditor = (props: Props) => {
  const { dress, card, change, problemAt } = props;
  const put = (part: Partial<Card>): void => change(withCard(dress.asked, { ...card, ...part }));
  const at = (part: string): string => problemAt(`asked.${card.id}.${part}`);
  return (
    <View style={styles.card}>
      <Row>
        <Button look="bare" label={`‹ ${said().back}`} onPress={props.leave} />
      </Row>
      <FreshField
        label={said().question}
        more={said().questionMore}
        value={card.question}
        maxLength={2_000}
        problem={at('question')}
        onChangeText={(question) => put({ question })}
      />
      <FreshField
        label={said().answer}
        more={said().answerMore}
        value={card.answer}
        multiline
        numberOfLines={6}
        maxLength={20_000}
        problem={at('answer')}
        onChangeText={(answer) => put({ answer })}
      />
      {card.answer.trim() ? (
        <LookedThrough
          text={card.answer}
          language={card.language}
          hasGaps={false}
          change={(answer) => put({ answer })}
        />
      ) : null}
      <Field
        label={said().link}
        more={said().linkMore}
        value={card.link}
        placeholder="https://"
        inputMode="url"
        autoCapitalize="none"
        maxLength={2_000}
        problem={at('link')}
        onChangeText={(link) => put({ link: link.trim() })}
      />
      <PicturesField
        pictures={card.pictureIds.map((id, at) => ({ id, name: said().pictureName(at + 1) }))}
        most={CARD_PICTURES_MOST}
        mostWords={said().picturesMost(CARD_PICTURES_MOST)}
        change={(pictures) => put({ pictureIds: pictures.map(({ id }) => id) })}
      />
      <Select
        label={said().language}
        options={languagesOf(dress).map((code): [string, string] => [code, languageName(code)])}
        value={card.language}
        onChange={(language) => put({ language })}
      />
      <States {...props} />
      <Follows {...props} put={put} />
      <Row>
        <Button look="bare" tone="brick" label={said().drop} onPress={props.drop} />
      </Row>
    </View>
  );
};

const styles = StyleSheet.create({
  card: { gap: 16 },
  part: { gap: 10 },
  further: { flexDirection: 'row', alignItems: 'center', gap: 8 },
  grow: { flex: 1, minWidth: 0 },
});
