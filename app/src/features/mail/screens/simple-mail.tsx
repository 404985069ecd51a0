import type { Mail, MailChange, MailFound } from '@porch/contract/mail';
import { useState } from 'react';
import { Field } from '../../../kit/fields/field';
import { Problem, Row, Section } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { problemElsewhere, problemOf } from '../../../shell/session/problems';
import { useChangeMail, useFindMail } from '../data/mail';
import { words } from '../words';

const said = () => words().simple;

/** What was found is looked at before a password goes there (RFC 6186, 3). */
const Found = ({ mail, found, done }: { mail: Mail; found: MailFound; done: () => void }) => {
  const [password, setPassword] = useState('');
  const { mutate, error, isPending, reset } = useChangeMail();
  const { address, outgoing, incoming } = found;
  if (!outgoing && !incoming) {
    return (
      <Text role="status" tone="ember">
        {said().foundNone}
      </Text>
    );
  }
  const save = (): void => {
    const change: MailChange = {
      ...mail.settings,
      ...(outgoing ? { outgoing: { ...outgoing, user: address, from: address } } : {}),
      ...(incoming
        ? { incoming: { kind: 'mailbox', ...incoming, user: address, address } as const }
        : {}),
      outgoingPassword: outgoing ? password : null,
      incomingPassword: incoming ? password : null,
    };
    mutate(change, { onSuccess: done });
  };
  return (
    <>
      <Text role="status">
        {said().found(outgoing?.host ?? null, incoming?.host ?? null)} {said().isRight}
      </Text>
      <Field
        label={said().password}
        more={said().passwordMore}
        value={password}
        maxLength={400}
        secureTextEntry
        autoComplete="off"
        onChangeText={(typed) => {
          setPassword(typed);
          reset();
        }}
      />
      <Problem text={problemOf(error)} />
      <Row>
        <Button
          look="main"
          label={said().setUp}
          disabled={isPending || password === ''}
          onPress={save}
        />
      </Row>
    </>
  );
};

/** Mail by the address of the business alone: where its servers are is found out. */
export const SimpleMail = ({ mail, done }: { mail: Mail; done: () => void }) => {
  const [address, setAddress] = useState('');
  const { mutate, data, error, isPending, reset } = useFindMail();
  return (
    <Section title={said().title}>
      <Text kind="second" tone="slate">
        {said().more}
      </Text>
      <Field
        label={said().address}
        value={address}
        maxLength={254}
        inputMode="email"
        autoCapitalize="none"
        autoComplete="email"
        problem={problemOf(error, 'address')}
        onChangeText={(typed) => {
          setAddress(typed);
          reset();
        }}
      />
      <Problem text={problemElsewhere(error, ['address'])} />
      <Row>
        <Button
          look={data ? 'edge' : 'main'}
          label={isPending ? said().finding : said().find}
          disabled={isPending || address.trim() === ''}
          onPress={() => mutate(address.trim())}
        />
      </Row>
      {data && !isPending ? (
        <Found key={data.address} mail={mail} found={data} done={done} />
      ) : null}
    </Section>
  );
};
