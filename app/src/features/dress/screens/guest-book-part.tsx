import {
  type ClosedManner,
  closedManners,
  type GuestBookPage,
  type OwnField,
  SUBJECT,
} from '@porch/core/dress';
import { nanoid } from 'nanoid';
import { StyleSheet, View } from 'react-native';
import { Choice } from '../../../kit/fields/choice';
import { Field } from '../../../kit/fields/field';
import { Problem, Row, Section } from '../../../kit/fields/form';
import { FreshField } from '../../../kit/fields/fresh-field';
import { LinesField } from '../../../kit/fields/lines-field';
import { Tick } from '../../../kit/fields/tick';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { corner } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { words } from '../words';
import type { Editing } from './editor';
import { FirstHello } from './first-hello-part';

const said = () => words().guestBook;
const knownFields = ['name', 'email', 'phone'] as const;

/** One question on a page of the guest book: asked or not, needed or not. */
const Asked = (props: {
  label: string;
  page: GuestBookPage;
  field: string;
  set: (page: GuestBookPage) => void;
}) => {
  const { page, field, label } = props;
  const asked = page.asks.find((one) => one.field === field);
  const ask = (isOn: boolean): void =>
    props.set({
      ...page,
      asks: isOn
        ? [...page.asks, { field, isRequired: false }]
        : page.asks.filter((one) => one.field !== field),
    });
  const need = (isRequired: boolean): void =>
    props.set({
      ...page,
      asks: page.asks.map((one) => (one.field === field ? { field, isRequired } : one)),
    });
  return (
    <View>
      <Tick label={`${said().asked}: ${label}`} isOn={asked !== undefined} onChange={ask} />
      {asked ? (
        <View style={styles.needed}>
          <Tick label={`${label}, ${said().required}`} isOn={asked.isRequired} onChange={need} />
        </View>
      ) : null}
    </View>
  );
};

const Page = (props: Editing & { which: 'lit' | 'notLit' }) => {
  const { dress, set, which } = props;
  const { guestBook } = dress;
  const page = guestBook[which];
  const put = (next: GuestBookPage): void => {
    set({ ...dress, guestBook: { ...guestBook, [which]: next } });
    props.look({ lamp: which === 'lit' ? 'lit' : 'dark', isOpen: true });
  };
  return (
    <Section title={said().pages[which]}>
      <Choice
        label={said().when}
        options={(['before', 'after', 'never'] as const).map((when) => [when, said().whens[when]])}
        value={page.when}
        onChange={(when) => put({ ...page, when })}
      />
      {page.when === 'never' ? null : (
        <View role="group" aria-label={said().asks}>
          {knownFields.map((field) => (
            <Asked key={field} field={field} label={said().fields[field]} page={page} set={put} />
          ))}
          <Asked field={SUBJECT} label={said().subject} page={page} set={put} />
          {guestBook.own.map(({ id, label }) => (
            <Asked key={id} field={id} label={label || said().label} page={page} set={put} />
          ))}
        </View>
      )}
      <Problem text={props.problemAt(`guestBook.${which}`)} />
    </Section>
  );
};

const Question = (props: {
  question: OwnField;
  /** On which pages it is asked, by name. */
  askedOn: readonly string[];
  problem: string;
  choicesProblem: string;
  change: (question: OwnField) => void;
  drop: () => void;
}) => {
  const theme = useTheme();
  const { question, change } = props;
  return (
    <View style={[styles.question, { borderColor: theme.edge }]}>
      <FreshField
        label={said().label}
        value={question.label}
        maxLength={200}
        problem={props.problem}
        onChangeText={(label) => change({ ...question, label })}
      />
      <Choice
        label={said().kind}
        options={(['text', 'choice', 'tick'] as const).map((kind) => [kind, said().kinds[kind]])}
        value={question.kind}
        onChange={(kind) => change({ ...question, kind })}
      />
      {question.kind === 'choice' ? (
        <LinesField
          label={said().choices}
          lines={question.choices}
          maxLength={2_000}
          problem={props.choicesProblem}
          onChangeLines={(choices) => change({ ...question, choices })}
        />
      ) : null}
      <Text kind="second" tone={props.askedOn.length > 0 ? 'slate' : 'ember'}>
        {props.askedOn.length > 0 ? said().askedOn(props.askedOn.join(', ')) : said().askedNowhere}
      </Text>
      <Row>
        <Button look="bare" label={said().drop} onPress={props.drop} />
      </Row>
    </View>
  );
};

const OwnQuestions = ({ dress, set, problemAt }: Editing) => {
  const { guestBook } = dress;
  const put = (own: OwnField[]): void => {
    const known = [...knownFields, SUBJECT, ...own.map(({ id }) => id)];
    const kept = (page: GuestBookPage): GuestBookPage => ({
      ...page,
      asks: page.asks.filter(({ field }) => known.some((one) => one === field)),
    });
    const next = { own, lit: kept(guestBook.lit), notLit: kept(guestBook.notLit) };
    set({ ...dress, guestBook: next });
  };
  const { own } = guestBook;
  const askedOn = (id: string): string[] =>
    (['lit', 'notLit'] as const)
      .filter((which) => {
        const { when, asks } = guestBook[which];
        return when !== 'never' && asks.some(({ field }) => field === id);
      })
      .map((which) => said().pages[which]);
  /** A new question is asked wherever anything is. */
  const add = (): void => {
    const id = nanoid();
    const asking = (page: GuestBookPage): GuestBookPage => ({
      ...page,
      asks: [...page.asks, { field: id, isRequired: false }],
    });
    const question: OwnField = { id, kind: 'text', label: '', choices: [] };
    const { lit, notLit } = guestBook;
    const next = { own: [...own, question], lit: asking(lit), notLit: asking(notLit) };
    set({ ...dress, guestBook: next });
  };
  return (
    <Section title={said().own}>
      <Text kind="second" tone="slate">
        {said().ownMore}
      </Text>
      {own.map((question) => (
        <Question
          key={question.id}
          question={question}
          askedOn={askedOn(question.id)}
          problem={problemAt(`guestBook.own.${question.id}`)}
          choicesProblem={problemAt(`guestBook.own.${question.id}.choices`)}
          change={(next) => put(own.map((one) => (one.id === next.id ? next : one)))}
          drop={() => put(own.filter(({ id }) => id !== question.id))}
        />
      ))}
      <Problem text={problemAt('guestBook.own')} />
      <Row>
        <Button label={said().add} onPress={add} />
      </Row>
    </Section>
  );
};

const Consent = ({ dress, set, problemAt }: Editing) => {
  const { consent } = dress;
  return (
    <Section title={said().consent}>
      <Tick
        label={said().consent}
        more={said().consentMore}
        isOn={consent.isAsked}
        onChange={(isAsked) => set({ ...dress, consent: { ...consent, isAsked } })}
      />
      {consent.isAsked ? (
        <Field
          label={said().link}
          value={consent.link}
          inputMode="url"
          autoCapitalize="none"
          maxLength={1_000}
          problem={problemAt('consent.link')}
          onChangeText={(link) => set({ ...dress, consent: { ...consent, link } })}
        />
      ) : null}
    </Section>
  );
};

const CallingBack = ({ dress, set }: Editing) => (
  <Section title={said().callBack}>
    <Tick
      label={said().callBack}
      more={said().callBackMore}
      isOn={dress.callBack}
      onChange={(callBack) => set({ ...dress, callBack })}
    />
  </Section>
);

/** What happens at the door while the light is not lit. */
const WhenNotLit = ({ dress, set, look }: Editing) => (
  <Section title={said().notLit}>
    <Choice
      label={said().notLit}
      isLabelHidden
      options={closedManners.map((manner) => [manner, said().notLits[manner]] as const)}
      value={dress.whenNotLit}
      onChange={(whenNotLit: ClosedManner) => {
        set({ ...dress, whenNotLit });
        look({ lamp: 'dark', isOpen: whenNotLit !== 'no-plate' });
      }}
    />
    <Text kind="second" tone="slate">
      {said().notLitMore[dress.whenNotLit]}
    </Text>
  </Section>
);

/** What visitors are asked for, and when; and whether they must agree first. */
export const GuestBookPart = (editing: Editing) => (
  <>
    <Text kind="second" tone="slate">
      {said().intro}
    </Text>
    <WhenNotLit {...editing} />
    <FirstHello {...editing} />
    <Page {...editing} which="lit" />
    <Page {...editing} which="notLit" />
    <OwnQuestions {...editing} />
    <CallingBack {...editing} />
    <Consent {...editing} />
  </>
);

const styles = StyleSheet.create({
  needed: { paddingLeft: 40 },
  question: { gap: 10, padding: 12, borderWidth: 1, borderRadius: corner },
});
