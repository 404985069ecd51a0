import { Copy, Problem, Row, Section } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { problemOf } from '../../../shell/session/problems';
import { useNewPersonKey, usePersonKey } from '../data/doors';
import { words } from '../words';

/** The key by which a website proves who is signed in there. */
export const SignedIn = ({ doorId }: { doorId: string }) => {
  const { data: key } = usePersonKey(doorId);
  const { mutate, isPending, error } = useNewPersonKey(doorId);
  const said = words().signedIn;
  return (
    <Section title={said.title}>
      <Text kind="second" tone="slate">
        {said.more}
      </Text>
      {key ? <Copy text={key} label={said.copy} isCode /> : null}
      <Row>
        <Button
          look={key ? 'bare' : 'edge'}
          label={key ? said.another : said.make}
          disabled={isPending}
          onPress={() => mutate()}
        />
      </Row>
      {key ? (
        <Text kind="second" tone="slate">
          {said.anotherMore}
        </Text>
      ) : null}
      <Problem text={problemOf(error)} />
    </Section>
  );
};
