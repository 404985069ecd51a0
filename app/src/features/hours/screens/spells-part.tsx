import { dayAfter, SPELL_LONGEST_DAYS, type Spans, type Spell } from '@porch/core/hours/opening';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Choice } from '../../../kit/fields/choice';
import { Field } from '../../../kit/fields/field';
import { Problem, Row, Section } from '../../../kit/fields/form';
import { MomentField } from '../../../kit/fields/moment-field';
import { Button } from '../../../kit/press';
import { Sheet } from '../../../kit/sheets/sheet';
import { Text } from '../../../kit/text';
import { dayInWords, spansInWords } from '../parts/in-words';
import { SpansSheet } from '../parts/spans-sheet';
import { words } from '../words';

/** As many as are kept. */
const SPELLS_MOST = 100;
const USUAL: Spans = [{ from: 540, to: 1_050 }];

const said = () => words().spells;

const daysInWords = ({ from, to }: Spell): string => said().days(dayInWords(from), dayInWords(to));

const AddSheet = (props: { today: string; add: (spell: Spell) => void; close: () => void }) => {
  const { today } = props;
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const [why, setWhy] = useState('');
  const [kind, setKind] = useState<'shut' | 'open'>('shut');
  const [spans, setSpans] = useState<Spans>(USUAL);
  const [isAsking, setAsking] = useState(false);
  const [problem, setProblem] = useState('');
  const add = (): void => {
    const last = to || from;
    const isRight = from >= today && last >= from && last < dayAfter(from, SPELL_LONGEST_DAYS);
    if (!from || !isRight) setProblem(said().wrong);
    else props.add({ from, to: last, spans: kind === 'shut' ? [] : spans, why: why.trim() });
  };
  if (isAsking) {
    return (
      <SpansSheet
        title={said().open}
        spans={spans}
        close={() => setAsking(false)}
        take={(next) => {
          setSpans(next);
          setAsking(false);
        }}
      />
    );
  }
  return (
    <Sheet title={said().add} close={props.close}>
      <View style={styles.days}>
        <MomentField
          kind="date"
          label={said().from}
          value={from}
          min={today}
          onChange={(day) => {
            setFrom(day);
            setProblem('');
          }}
        />
        <MomentField
          kind="date"
          label={said().to}
          value={to || from}
          min={from || today}
          onChange={(day) => {
            setTo(day);
            setProblem('');
          }}
        />
      </View>
      <Choice
        label={said().add}
        isLabelHidden
        options={[
          ['shut', said().shut],
          ['open', said().open],
        ]}
        value={kind}
        onChange={setKind}
      />
      {kind === 'open' ? (
        <Row>
          <Text>{spansInWords(spans)}</Text>
          <Button look="bare" label={said().open} onPress={() => setAsking(true)} />
        </Row>
      ) : null}
      <Field
        label={said().why}
        more={said().whyMore}
        value={why}
        maxLength={80}
        onChangeText={setWhy}
      />
      <Problem text={problem} />
      <Button look="main" label={said().take} onPress={add} />
    </Sheet>
  );
};

/** Days and spells that go their own way. */
export const SpellsPart = (props: {
  spells: readonly Spell[];
  today: string;
  isFixed: boolean;
  onChange: (spells: Spell[]) => void;
}) => {
  const { spells, today, isFixed, onChange } = props;
  const [isAdding, setAdding] = useState(false);
  const coming = spells.filter(({ to }) => to >= today);
  const isFull = spells.length >= SPELLS_MOST;
  return (
    <Section title={said().title}>
      <Text kind="second" tone="slate">
        {said().more}
      </Text>
      {coming.length === 0 ? <Text tone="slate">{said().none}</Text> : null}
      {coming.map((spell) => (
        <View key={`${spell.from} ${spell.to} ${spell.why}`} style={styles.spell}>
          <View style={styles.grow}>
            <Text>{daysInWords(spell)}</Text>
            <Text kind="second" tone="slate">
              {[spansInWords(spell.spans), spell.why].filter(Boolean).join(' · ')}
            </Text>
          </View>
          {isFixed ? null : (
            <Button
              look="bare"
              label={words().remove}
              aria-label={said().remove(daysInWords(spell))}
              onPress={() => onChange(spells.filter((other) => other !== spell))}
            />
          )}
        </View>
      ))}
      {isFixed ? null : (
        <Row>
          <Button label={said().add} disabled={isFull} onPress={() => setAdding(true)} />
        </Row>
      )}
      {isFull ? <Text tone="slate">{said().many(SPELLS_MOST)}</Text> : null}
      {isAdding ? (
        <AddSheet
          today={today}
          close={() => setAdding(false)}
          add={(spell) => {
            setAdding(false);
            onChange([...spells, spell].sort((a, b) => a.from.localeCompare(b.from)));
          }}
        />
      ) : null}
    </Section>
  );
};

const styles = StyleSheet.create({
  days: { flexDirection: 'row', flexWrap: 'wrap', gap: 12 },
  spell: { flexDirection: 'row', alignItems: 'center', gap: 8 },
  grow: { flex: 1 },
});
