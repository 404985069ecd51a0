import type { MailSecurity } from '@porch/contract/mail';
import { type MailWay, mailPorts } from '@porch/core/mail/servers';
import { View } from 'react-native';
import { Field } from '../../../kit/fields/field';
import { Select } from '../../../kit/fields/select';
import { Text } from '../../../kit/text';
import { problemOf } from '../../../shell/session/problems';
import { words } from '../words';

/** A mail server as it is typed: a port is a text until it is a number. */
export interface TypedServer {
  host: string;
  port: string;
  security: MailSecurity;
  user: string;
  password: string;
}

/** "587" → 587; null for what is no port. */
export const portOf = (typed: string): number | null => {
  const port = Number(typed);
  return /^\d+$/.test(typed.trim()) && port >= 1 && port <= 65_535 ? port : null;
};

/** The port that goes with an encryption, as it is typed; '' where there is none by habit. */
export const usualPort = (way: MailWay, security: MailSecurity): string =>
  security === 'none' ? '' : `${mailPorts[way][security]}`;

const securities = (['tls', 'starttls', 'none'] as const).map(
  (one) => [one, () => words().out.securities[one]] as const,
);

/** Where a mail server is and how one signs in there. */
export const ServerFields = (props: {
  way: MailWay;
  typed: TypedServer;
  change: (part: Partial<TypedServer>) => void;
  host: { label: string; more: string };
  hasPassword: boolean;
  error: Error | null;
}) => {
  const { typed, change, error } = props;
  const said = words().out;
  const isPortWrong = typed.port !== '' && portOf(typed.port) === null;
  return (
    <View style={{ gap: 12 }}>
      <Field
        label={props.host.label}
        more={props.host.more}
        value={typed.host}
        maxLength={253}
        autoCapitalize="none"
        autoCorrect={false}
        problem={problemOf(error, 'host')}
        onChangeText={(host) => change({ host: host.trim() })}
      />
      <Select
        label={said.security}
        options={securities.map(([value, label]) => [value, label()])}
        value={typed.security}
        onChange={(chosen) => {
          const security = chosen as MailSecurity;
          // A port that somebody typed stays.
          const isUsual = ['', usualPort(props.way, typed.security)].includes(typed.port);
          change({ security, ...(isUsual ? { port: usualPort(props.way, security) } : {}) });
        }}
      />
      {typed.security === 'none' ? (
        <Text kind="second" tone="ember">
          {said.noneMore}
        </Text>
      ) : null}
      <Field
        label={said.port}
        value={typed.port}
        maxLength={5}
        inputMode="numeric"
        problem={isPortWrong ? said.portWrong : ''}
        onChangeText={(port) => change({ port })}
      />
      <Field
        label={said.user}
        more={said.userMore}
        value={typed.user}
        maxLength={254}
        autoCapitalize="none"
        autoCorrect={false}
        autoComplete="off"
        onChangeText={(user) => change({ user })}
      />
      <Field
        label={said.password}
        more={props.hasPassword ? said.passwordKept : undefined}
        value={typed.password}
        maxLength={400}
        secureTextEntry
        autoComplete="off"
        onChangeText={(password) => change({ password })}
      />
    </View>
  );
};
