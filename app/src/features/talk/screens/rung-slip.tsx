import type { RungLine, RungPerson } from '@porch/core/ringing';
import { StyleSheet, View } from 'react-native';
import { Text } from '../../../kit/text';
import { momentInWords } from '../../../kit/times';
import { words } from '../words';
import type { RollFacts } from './roll-facts';

/** So many times are named of each; of more, the first and the last. */
const NAMED_MOST = 4;

const timesOf = (at: readonly number[], { now, zone }: RollFacts): string => {
  const named = at.map((moment) => momentInWords(moment, now, zone));
  return named.length <= NAMED_MOST ? named.join(', ') : `${named[0]} … ${named.at(-1)}`;
};

const rangInWords = ({ memberId, by, at, failed }: RungPerson, facts: RollFacts): string => {
  const said = words().conversation.rung;
  const [done, notDone] = by === 'push' ? [said.rang, said.failed] : [said.wrote, said.notWritten];
  return (failed === null ? done : notDone)(facts.memberName(memberId), timesOf(at, facts));
};

/** What came of a round of ringing: who looked, or who was rung while nobody has. */
export const rungInBrief = (line: RungLine, facts: RollFacts): string => {
  const { looked } = line;
  if (!looked) return rungInWords(line, facts);
  const { now, zone, memberName } = facts;
  return words().conversation.rung.looked(
    memberName(looked.memberId),
    momentInWords(looked.at, now, zone),
  );
};

/** Who was rung for what was said, and what came of it: "rang Maren 10:02, 10:03; Tobias looked 10:04". */
export const rungInWords = ({ rung, looked }: RungLine, facts: RollFacts): string => {
  const said = words().conversation.rung;
  const { now, zone, memberName } = facts;
  const end = looked
    ? said.looked(memberName(looked.memberId), momentInWords(looked.at, now, zone))
    : said.nobody;
  const line = [...rung.map((one) => rangInWords(one, facts)), end].join('; ');
  return line.charAt(0).toLocaleUpperCase() + line.slice(1);
};

/** One small line for a whole round of ringing. */
export const RungSlip = ({ line, facts }: { line: RungLine; facts: RollFacts }) => (
  <View style={styles.mark}>
    <Text kind="small" tone="slate">
      {rungInWords(line, facts)}
    </Text>
  </View>
);

const styles = StyleSheet.create({ mark: { paddingHorizontal: 24, paddingVertical: 4 } });
