import { type Finding, findingsWithoutGaps, withInstead } from '@porch/core/writing';
import { useEffect, useMemo } from 'react';
import { StyleSheet, View } from 'react-native';
import { Row } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { useLookThrough } from '../data/look-through';
import { useSetOwnWords } from '../data/own-words';
import { words } from '../words';

/** So many are told one by one; the rest is marked in the text. */
const TOLD_MOST = 8;

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
    case 'never-filled':
      return said().neverFilled(what);
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

export interface Looking {
  text: string;
  /** ISO 639. */
  language: string;
  /** Whether it has gaps as a quick reply has them; others have theirs looked at where they are kept. */
  hasGaps?: boolean;
  change: (text: string) => void;
  /** To be marked in the field. */
  onFound?: (findings: readonly Finding[]) => void;
}

/** What was found in a text, each with its ways out. Nothing of it keeps anybody from saving. */
export const LookedThrough = (props: Looking) => {
  const { text, language, hasGaps = true, change, onFound } = props;
  const looked = useLookThrough(text, language);
  const findings = useMemo(
    () => (hasGaps ? looked.findings : findingsWithoutGaps(text, looked.findings)),
    [text, looked.findings, hasGaps],
  );
  const own = useSetOwnWords();
  useEffect(() => onFound?.(findings), [findings, onFound]);
  const rest = findings.length - TOLD_MOST;
  if (text.trim() === '') return null;
  return (
    <View role="group" aria-label={said().title} style={styles.findings}>
      <Text kind="label">{said().title}</Text>
      {findings.slice(0, TOLD_MOST).map((finding) => (
        <OneFinding
          key={`${finding.kind} ${finding.from} ${finding.words}`}
          finding={finding}
          mend={(instead) => change(withInstead(text, finding, instead))}
          takeWord={() => own.mutate({ add: [finding.words], drop: [] })}
        />
      ))}
      {rest > 0 ? <Text kind="second">{said().more(rest)}</Text> : null}
      <Text kind="second" tone="slate" role="status">
        {looked.isLooking
          ? said().looking
          : looked.isNotSpelled
            ? said().notSpelled
            : findings.length === 0
              ? said().none
              : ''}
      </Text>
    </View>
  );
};

const styles = StyleSheet.create({
  findings: { gap: 8 },
  finding: { gap: 6, paddingBottom: 10, borderBottomWidth: 1 },
  small: { paddingHorizontal: 12, paddingVertical: 6 },
});
