import type {
  IncomingMail,
  MailChange,
  Mail as MailData,
  OutgoingMail,
} from '@porch/contract/mail';
import type { MailWay } from '@porch/core/mail/servers';
import { useState } from 'react';
import { Choice } from '../../../kit/fields/choice';
import { Field } from '../../../kit/fields/field';
import { Fold } from '../../../kit/fields/fold';
import { Done, Problem, Row, Section } from '../../../kit/fields/form';
import { Tick } from '../../../kit/fields/tick';
import { Button } from '../../../kit/press';
import { Failed, RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { kitWords } from '../../../kit/words';
import { HousePage } from '../../../shell/frame/house-page';
import { problemElsewhere, problemOf } from '../../../shell/session/problems';
import { whyInWords } from '../../../shell/words/why';
import { useChangeMail, useMail, useMailTest } from '../data/mail';
import { words } from '../words';
import { portOf, ServerFields, type TypedServer, usualPort } from './server-fields';
import { SimpleMail } from './simple-mail';

const whyOf = (why: string): string => words().out.whys[why] ?? whyInWords(why);

const toTyped = (
  way: MailWay,
  known: Pick<OutgoingMail, 'host' | 'port' | 'security' | 'user'> | null,
): TypedServer => ({
  host: known?.host ?? '',
  port: known ? `${known.port}` : usualPort(way, 'tls'),
  security: known?.security ?? 'tls',
  user: known?.user ?? '',
  password: '',
});

const toServer = ({ host, port, security, user }: TypedServer) => {
  const number = portOf(port);
  return host && number !== null ? { host, port: number, security, user } : null;
};

/** All of it as it is now, with no password said anew. */
const asItIs = ({ settings }: MailData): MailChange => ({
  ...settings,
  outgoingPassword: null,
  incomingPassword: null,
});

const TestMail = () => {
  const { mutate, data, error, isPending } = useMailTest();
  const said = words().out;
  return (
    <>
      <Row>
        <Button label={said.test} disabled={isPending} onPress={() => mutate()} />
      </Row>
      {data && data.why === null ? <Done text={said.testDone(data.to)} /> : null}
      {data?.why ? (
        <>
          <Problem text={whyOf(data.why)} />
          {data.said ? (
            <Text kind="second" tone="slate">
              {said.testSaid(data.said)}
            </Text>
          ) : null}
        </>
      ) : null}
      <Problem text={problemOf(error)} />
    </>
  );
};

const Outgoing = ({ mail }: { mail: MailData }) => {
  const { outgoing } = mail.settings;
  const [isOn, setOn] = useState(outgoing !== null);
  const [typed, setTyped] = useState(() => toTyped('out', outgoing));
  const [from, setFrom] = useState(outgoing?.from ?? '');
  const { mutate, error, isPending, isSuccess, reset } = useChangeMail();
  const said = words().out;
  const server = toServer(typed);
  const turn = (next: boolean): void => {
    setOn(next);
    if (!next && outgoing) mutate({ ...asItIs(mail), outgoing: null });
  };
  const save = (): void => {
    if (!server) return;
    mutate({
      ...asItIs(mail),
      outgoing: { ...server, from },
      outgoingPassword: typed.password || null,
    });
  };
  return (
    <Section title={said.title}>
      <Text kind="second" tone="slate">
        {said.more}
      </Text>
      <Tick label={said.isOn} isOn={isOn} onChange={turn} />
      {isOn ? (
        <>
          <ServerFields
            way="out"
            typed={typed}
            host={{ label: said.host, more: said.hostMore }}
            hasPassword={mail.hasOutgoingPassword}
            error={error}
            change={(part) => {
              setTyped({ ...typed, ...part });
              reset();
            }}
          />
          <Field
            label={said.from}
            more={said.fromMore}
            value={from}
            maxLength={254}
            inputMode="email"
            autoCapitalize="none"
            problem={problemOf(error, 'from')}
            onChangeText={(next) => {
              setFrom(next);
              reset();
            }}
          />
          <Problem text={problemElsewhere(error, ['from', 'host'])} />
          <Row>
            <Button
              look="main"
              label={kitWords().save}
              disabled={isPending || !server || !from}
              onPress={save}
            />
            {isSuccess ? <Done text={kitWords().saved} /> : null}
          </Row>
          {outgoing ? <TestMail /> : null}
          <Text kind="second" tone={mail.isNearOnly ? 'ember' : 'slate'}>
            {mail.isNearOnly ? said.linksNear(mail.linksTo) : said.links(mail.linksTo)}
          </Text>
        </>
      ) : null}
    </Section>
  );
};

type Kind = IncomingMail['kind'];

const Incoming = ({ mail }: { mail: MailData }) => {
  const { incoming } = mail.settings;
  const said = words().in;
  const [kind, setKind] = useState<Kind>(incoming.kind);
  const [domain, setDomain] = useState(incoming.kind === 'own' ? incoming.domain : '');
  const known = incoming.kind === 'mailbox' ? incoming : null;
  const [typed, setTyped] = useState(() => toTyped('in', known));
  const [address, setAddress] = useState(known?.address ?? '');
  const { mutate, error, isPending, isSuccess, reset } = useChangeMail();
  const kinds = (['none', 'own', 'mailbox'] as const).filter(
    (one) => one !== 'own' || mail.ownPort !== null,
  );
  const server = toServer(typed);
  const next: IncomingMail | null =
    kind === 'none'
      ? { kind }
      : kind === 'own'
        ? { kind, domain }
        : server && { kind, ...server, address };
  const choose = (chosen: Kind): void => {
    setKind(chosen);
    reset();
    if (chosen === 'none') mutate({ ...asItIs(mail), incoming: { kind: 'none' } });
  };
  const save = (): void => {
    if (!next) return;
    mutate({ ...asItIs(mail), incoming: next, incomingPassword: typed.password || null });
  };
  return (
    <Section title={said.title}>
      <Text kind="second" tone="slate">
        {said.more}
      </Text>
      <Choice
        label={said.kind}
        options={kinds.map((one) => [one, said.kinds[one]])}
        value={kind}
        onChange={choose}
      />
      {kind === 'own' ? (
        <Field
          label={said.domain}
          more={said.domainMore(mail.ownPort ?? 25)}
          value={domain}
          maxLength={253}
          autoCapitalize="none"
          problem={problemOf(error, 'domain')}
          onChangeText={(text) => {
            setDomain(text.trim());
            reset();
          }}
        />
      ) : null}
      {kind === 'mailbox' ? (
        <>
          <Text kind="second" tone="slate">
            {said.mailboxMore}
          </Text>
          <Field
            label={said.address}
            value={address}
            maxLength={254}
            inputMode="email"
            autoCapitalize="none"
            problem={problemOf(error, 'address')}
            onChangeText={(text) => {
              setAddress(text);
              reset();
            }}
          />
          <ServerFields
            way="in"
            typed={typed}
            host={{ label: said.host, more: said.hostMore }}
            hasPassword={mail.hasIncomingPassword}
            error={error}
            change={(part) => {
              setTyped({ ...typed, ...part });
              reset();
            }}
          />
          {known && mail.mailboxProblem ? (
            <Problem text={said.failing(whyOf(mail.mailboxProblem))} />
          ) : null}
        </>
      ) : null}
      <Problem text={problemElsewhere(error, ['domain', 'address', 'host'])} />
      {kind === 'none' ? null : (
        <Row>
          <Button
            look="main"
            label={kitWords().save}
            disabled={isPending || !next}
            onPress={save}
          />
          {isSuccess ? <Done text={kitWords().saved} /> : null}
        </Row>
      )}
    </Section>
  );
};

const isNothingSet = ({ settings: { outgoing, incoming } }: MailData): boolean =>
  outgoing === null && incoming.kind === 'none';

/** First by the address alone; whoever begins by hand stays at it. */
const Servers = ({ mail }: { mail: MailData }) => {
  const [isFirst, setFirst] = useState(() => isNothingSet(mail));
  return isFirst ? (
    <>
      <SimpleMail mail={mail} done={() => setFirst(false)} />
      <Fold title={words().byHand}>
        <Outgoing mail={mail} />
        <Incoming mail={mail} />
      </Fold>
    </>
  ) : (
    <>
      <Outgoing mail={mail} />
      <Incoming mail={mail} />
    </>
  );
};

/** How alerts go out by mail, and how they are answered. */
export const MailScreen = () => {
  const { data: mail, isError, refetch } = useMail();
  if (isError && !mail) return <Failed retry={() => void refetch()} />;
  if (!mail) return <RowsComing />;
  return (
    <HousePage title={words().title} isBehind>
      <Servers mail={mail} />
    </HousePage>
  );
};
