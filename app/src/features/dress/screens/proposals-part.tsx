import type { CardProposal } from '@porch/contract/cards';
import { StyleSheet, View } from 'react-native';
import { Row, Section } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { corner } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { wayTo } from '../../../kit/way';
import { useCardProposals } from '../data/card-proposals';
import { words } from '../words';

const said = () => words().asked.proposals;
const SHOWN_LONGEST = 90;

const inBrief = (text: string): string => {
  const line = text.replace(/\s+/g, ' ');
  return line.length > SHOWN_LONGEST ? `${line.slice(0, SHOWN_LONGEST)} …` : line;
};

const Proposal = (props: { proposal: CardProposal; make: () => void }) => {
  const theme = useTheme();
  const { question, count, messages } = props.proposal;
  return (
    <View style={[styles.proposal, { borderColor: theme.edge }]}>
      <Text kind="label" {...{ dir: 'auto' }}>
        {question}
      </Text>
      <Text kind="small" tone="slate">
        {said().askedBy(count)}
      </Text>
      {messages.map(({ conversationId, text, at }) => (
        <Button
          key={`${conversationId} ${at}`}
          look="bare"
          {...wayTo(`/line/${conversationId}`)}
          label={`“${inBrief(text)}”`}
          style={styles.message}
        />
      ))}
      <Row>
        <Button label={said().make} onPress={props.make} />
      </Row>
    </View>
  );
};

/** Questions that keep coming and have no card yet, each with the messages that say so. */
export const ProposalsPart = (props: {
  doorId: string;
  make: (proposal: CardProposal) => void;
}) => {
  const proposals = useCardProposals(props.doorId);
  if (proposals.length === 0) return null;
  return (
    <Section title={said().title}>
      <Text kind="second" tone="slate">
        {said().more}
      </Text>
      {proposals.map((proposal) => (
        <Proposal key={proposal.question} proposal={proposal} make={() => props.make(proposal)} />
      ))}
    </Section>
  );
};

const styles = StyleSheet.create({
  proposal: { gap: 6, padding: 12, borderWidth: 1, borderRadius: corner },
  message: { alignSelf: 'flex-start', paddingVertical: 4 },
});
