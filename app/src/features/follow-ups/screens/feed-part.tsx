import { useState } from 'react';
import { Field } from '../../../kit/fields/field';
import { Copy, Problem, Row, Section } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { momentInWords } from '../../../kit/times';
import { MINUTE_MS, useNow } from '../../../shell/live/use-now';
import { useZone } from '../../../shell/session/house';
import { problemElsewhere, problemOf } from '../../../shell/session/problems';
import { useDropFeed, useFeed, useMakeFeed } from '../data/follow-ups';
import { words } from '../words';

/** The secret address by which a calendar program reads one's follow-ups. */
export const FeedPart = () => {
  const zone = useZone();
  const now = useNow(MINUTE_MS);
  const { data } = useFeed();
  const make = useMakeFeed();
  const drop = useDropFeed();
  const [password, setPassword] = useState<string | null>(null);
  const said = words().feed;
  if (!data) return null;
  const { madeAt } = data;
  return (
    <Section title={said.title}>
      <Text kind="second" tone="slate">
        {said.more}
      </Text>
      {make.data && madeAt !== null ? (
        <Copy text={make.data.address} label={said.copy} isCode />
      ) : null}
      {madeAt !== null && !make.data ? (
        <Text kind="second">{said.made(momentInWords(madeAt, now, zone))}</Text>
      ) : null}
      {password === null ? null : (
        <Field
          label={said.password}
          autoComplete="current-password"
          secureTextEntry
          maxLength={200}
          value={password}
          problem={problemOf(make.error, 'password')}
          onChangeText={setPassword}
        />
      )}
      <Row>
        <Button
          label={madeAt === null ? said.make : said.renew}
          disabled={make.isPending || password === ''}
          onPress={() =>
            password === null
              ? setPassword('')
              : make.mutate(password, { onSuccess: () => setPassword(null) })
          }
        />
        {madeAt === null ? null : (
          <Button
            look="bare"
            label={said.drop}
            onPress={() => drop.mutate(undefined, { onSuccess: () => make.reset() })}
          />
        )}
      </Row>
      {madeAt === null ? null : (
        <Text kind="second" tone="slate">
          {said.renewMore}
        </Text>
      )}
      <Problem text={problemElsewhere(make.error ?? drop.error, ['password'])} />
    </Section>
  );
};
