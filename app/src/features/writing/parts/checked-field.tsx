import { type Finding, withInstead } from '@porch/core/writing';
import { type RefObject, useId } from 'react';
import { StyleSheet, type TextInput, View } from 'react-native';
import { FieldLabel } from '../../../kit/fields/field-label';
import { Problem, Row } from '../../../kit/fields/form';
import { type Mark, MarkedInput } from '../../../kit/fields/marked-input';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { type LookThrough, useSetOwnWords } from '../data/look-through';
import { words } from '../words';

/** So many are told one by one; the rest is marked in the text. */
const TOLD_MOST = 8;
const TALLEST = 420;

const said = () => words().findings;

const inWords = ({ kind, words: what, why }: Finding): string => {
  switch (kind) {
    case 'spelling':
      return said().spelling(what);
    case 'doubled':
      return said().doubled(what.replace(/\s+/g, ' '));
    case 'spaces':
      return said().spaces;
    case 'placeholder':
      return said().placeholder(what);
    case 'unknown-gap':
      return said().unknownGap(what);
    case 'link':
      return said().link(what);
    case 'broken':
      return said()[why ?? 'unclosed'];
  }
};

const wayOut = (instead: string): string => {
  if (instead === ' ') return said().oneSpace;
  return instead.startsWith('{') ? said().ask(instead) : said().instead(instead);
};

const OneFinding = (props: {
  finding: Finding;
  mend: (instead: string) => void;
  takeWord: () => void;
}) => {
  const theme = useTheme();
  const { finding } = props;
  return (
    <View style={[styles.finding, { borderColor: theme.seam }]}>
      <Text kind="second">{inWords(finding)}</Text>
      <Row>
        {finding.instead.map((instead) => (
          <Button
            key={instead}
            label={wayOut(instead)}
            onPress={() => props.mend(instead)}
            style={styles.small}
          />
        ))}
        {finding.kind === 'spelling' ? (
          <Button look="bare" label={said().ours(finding.words)} onPress={props.takeWord} />
        ) : null}
      </Row>
    </View>
  );
};

/** What was found in a text, each with its ways out. Nothing of it keeps anybody from saving. */
export const Findings = (props: {
  text: string;
  looked: LookThrough;
  change: (text: string) => void;
}) => {
  const { text, looked } = props;
  const { findings, isLooking, isNotSpelled } = looked;
  const own = useSetOwnWords();
  const rest = findings.length - TOLD_MOST;
  if (text.trim() === '') return null;
  return (
    <View role="group" aria-label={said().title} style={styles.findings}>
      <Text kind="label">{said().title}</Text>
      {findings.slice(0, TOLD_MOST).map((finding) => (
        <OneFinding
          key={`${finding.kind} ${finding.from} ${finding.words}`}
          finding={finding}
          mend={(instead) => props.change(withInstead(text, finding, instead))}
          takeWord={() => own.mutate({ add: [finding.words], drop: [] })}
        />
      ))}
      {rest > 0 ? <Text kind="second">{said().more(rest)}</Text> : null}
      <Text kind="second" tone="slate" role="status">
        {isLooking
          ? said().looking
          : isNotSpelled
            ? said().notSpelled
            : findings.length === 0
              ? said().none
              : ''}
      </Text>
    </View>
  );
};

/** A field of several lines whose findings are marked in it. */
export const CheckedField = (props: {
  label: string;
  more?: string;
  field: RefObject<TextInput | null>;
  value: string;
  problem?: string;
  findings: readonly Finding[];
  /** What stands out besides. */
  gaps?: readonly { from: number; to: number }[];
  change: (text: string) => void;
}) => {
  const id = useId();
  const marks: Mark[] = [
    ...props.findings.map(({ from, to }): Mark => ({ from, to, look: 'wrong' })),
    ...(props.gaps ?? []).map(({ from, to }): Mark => ({ from, to, look: 'gap' })),
  ];
  return (
    <View style={styles.field}>
      <FieldLabel id={id} label={props.label} more={props.more} />
      <MarkedInput
        field={props.field}
        marks={marks}
        tallest={TALLEST}
        aria-labelledby={`${id}-label`}
        value={props.value}
        onChangeText={props.change}
        numberOfLines={4}
        spellCheck={false}
      />
      <Problem text={props.problem ?? ''} />
    </View>
  );
};

const styles = StyleSheet.create({
  field: { gap: 4 },
  findings: { gap: 8 },
  finding: { gap: 6, paddingBottom: 10, borderBottomWidth: 1 },
  small: { paddingHorizontal: 12, paddingVertical: 6 },
});
