import { PASSWORD_SHORTEST } from '@porch/contract/limits';
import { useQueryClient } from '@tanstack/react-query';
import { router } from 'expo-router';
import { useEffect, useState } from 'react';
import { Field } from '../../../kit/fields/field';
import { Problem } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { takeSecret } from '../../../shell/session/device';
import { problemElsewhere, problemOf } from '../../../shell/session/problems';
import { isFinal } from '../../../shell/session/refused';
import { shellWords } from '../../../shell/words';
import { useClaim, useCollect, useSeenLink } from '../../team/data/team';
import { roleName } from '../../team/parts/role-name';
import { useJoin, useNewPassword } from '../data/entering';
import { words } from '../words';
import { Porch } from './entrance';

const goIn = (): void => router.replace('/line');

/** A link that cannot be used: why, and where to go instead. */
const Unusable = ({ why }: { why: string }) => (
  <Porch title={words().join.cannot}>
    <Problem text={why} />
    <Button label={words().join.goIn} onPress={() => router.replace('/sign-in')} />
  </Porch>
);

/** The secret of the link that was opened; it leaves the address at once. */
const useSecret = (): string => useState(takeSecret)[0];

type JoinField = 'name' | 'email' | 'password';

/** Coming into the team by an invitation. */
export const JoinByLink = () => {
  const token = useSecret();
  const seen = useSeenLink(token);
  const { mutate, error, isPending } = useJoin();
  const [changed, setChanged] = useState<Partial<Record<JoinField, string>>>({});
  if (seen.error || !token || (seen.data && seen.data.kind !== 'invite')) {
    return <Unusable why={problemOf(seen.error) || shellWords().refusal({ code: 'link-stale' })} />;
  }
  if (!seen.data) return <RowsComing />;
  const { business, role, name } = seen.data;
  // Whoever invited them has said what they are called; they may say it otherwise.
  const typed = { name, email: '', password: '', ...changed };
  const field = (which: JoinField) => ({
    value: typed[which],
    problem: problemOf(error, which),
    onChangeText: (text: string) => setChanged({ ...changed, [which]: text }),
  });
  const said = words().join;
  return (
    <Porch title={said.title(business)} more={said.more(roleName(role ?? 'helper'))}>
      <Field label={said.name} autoComplete="name" maxLength={80} {...field('name')} />
      <Field
        label={said.email}
        more={said.emailMore}
        autoComplete="email"
        inputMode="email"
        autoCapitalize="none"
        maxLength={254}
        {...field('email')}
      />
      <Field
        label={said.password}
        more={words().setUp.passwordMore(PASSWORD_SHORTEST)}
        autoComplete="new-password"
        secureTextEntry
        maxLength={200}
        {...field('password')}
      />
      <Problem text={problemElsewhere(error, ['name', 'email', 'password'])} />
      <Button
        look="main"
        label={said.submit}
        disabled={isPending}
        onPress={() => mutate({ token, ...typed }, { onSuccess: goIn })}
      />
    </Porch>
  );
};

/** Making a new password by a link that an owner handed over. */
export const NewPasswordByLink = () => {
  const token = useSecret();
  const seen = useSeenLink(token);
  const { mutate, error, isPending } = useNewPassword();
  const [password, setPassword] = useState('');
  if (seen.error || !token || (seen.data && seen.data.kind !== 'new-password')) {
    return <Unusable why={problemOf(seen.error) || shellWords().refusal({ code: 'link-stale' })} />;
  }
  if (!seen.data) return <RowsComing />;
  const said = words().newPassword;
  return (
    <Porch title={said.title} more={said.more(seen.data.name)}>
      <Field
        label={said.password}
        more={words().setUp.passwordMore(PASSWORD_SHORTEST)}
        value={password}
        autoComplete="new-password"
        secureTextEntry
        maxLength={200}
        problem={problemOf(error)}
        onChangeText={setPassword}
      />
      <Button
        look="main"
        label={said.submit}
        disabled={isPending}
        onPress={() => mutate({ token, password }, { onSuccess: goIn })}
      />
    </Porch>
  );
};

/** The phone's side of signing in by a code: two words, until the other screen says that they are the same. */
export const PairByCode = () => {
  const secret = useSecret();
  const client = useQueryClient();
  const claim = useClaim(secret);
  const collect = useCollect(claim.data?.ticket);
  const state = collect.data?.state;
  const said = words().pair;
  useEffect(() => {
    if (state === 'done') void client.invalidateQueries({ queryKey: ['house'] }).then(goIn);
  }, [state, client]);
  const problem = !secret
    ? said.noCode
    : state === 'refused'
      ? said.refused
      : state === 'stale' || claim.error || isFinal(collect.error)
        ? said.stale
        : '';
  if (problem) {
    return (
      <Porch title={said.title}>
        <Problem text={problem} />
        <Button label={said.toSignIn} onPress={() => router.replace('/sign-in')} />
      </Porch>
    );
  }
  if (!claim.data) return <RowsComing />;
  return (
    <Porch title={said.title} more={said.more}>
      <Text kind="large" role="status">
        {claim.data.words}
      </Text>
    </Porch>
  );
};
