import { isErrorCode } from '@porch/contract/errors';
import { PASSWORD_SHORTEST } from '@porch/contract/limits';
import { router, useLocalSearchParams } from 'expo-router';
import { type ReactNode, useCallback, useLayoutEffect, useRef, useState } from 'react';
import { ScrollView, StyleSheet, type TextInput, View } from 'react-native';
import { LampGlyph } from '../../../kit/drawn/lamp-glyph';
import { Field } from '../../../kit/fields/field';
import { Problem } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { SET_UP, useTyped } from '../../../shell/offline/typed';
import { takeSecret } from '../../../shell/session/device';
import { ApiError } from '../../../shell/session/refused';
import { dropBefore, typedBefore } from '../../../shell/start/before';
import { shellWords } from '../../../shell/words';
import { useSetUp, useSignIn } from '../data/entering';
import { words } from '../words';

const refusalOf = (error: Error | null) =>
  error instanceof ApiError ? error.refusal : error ? { code: 'our-fault' as const } : null;

/** What became of a sign-in by the page's own form, before the app was there. */
const refusedBefore = ({ refused, wait }: { refused?: string; wait?: string }) =>
  refused && isErrorCode(refused) ? { code: refused, waitMs: Number(wait ?? 0) } : null;

export const Porch = (props: { title: string; more?: string; children: ReactNode }) => (
  <ScrollView contentContainerStyle={styles.inside} role="main">
    <View style={styles.mark}>
      <LampGlyph state="dark" size={56} />
      <Text kind="large">{shellWords().name}</Text>
    </View>
    <Text kind="title" role="heading" aria-level={1}>
      {props.title}
    </Text>
    {props.more ? <Text tone="slate">{props.more}</Text> : null}
    {props.children}
  </ScrollView>
);

/** Signing in with email and password. */
export const SignIn = () => {
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const [isForgotten, setForgotten] = useState(false);
  const { mutate, error, isPending } = useSignIn();
  const send = useCallback(
    (said: { email: string; password: string }): void =>
      mutate(said, { onSuccess: () => router.replace('/line') }),
    [mutate],
  );
  const asked = useLocalSearchParams<{ refused?: string; wait?: string }>();
  const refusal = refusalOf(error) ?? refusedBefore(asked);
  const emailField = useRef<TextInput>(null);
  const passwordField = useRef<TextInput>(null);
  useLayoutEffect(() => {
    // What was typed before the app was there, up to this very moment, goes on here.
    const { typed, focused, isSubmitted } = typedBefore();
    dropBefore();
    const said = { email: typed.email ?? '', password: typed.password ?? '' };
    setEmail(said.email);
    setPassword(said.password);
    if (focused === 'email') emailField.current?.focus();
    if (focused === 'password') passwordField.current?.focus();
    if (isSubmitted) send(said);
  }, [send]);
  const submit = (): void => send({ email, password });
  return (
    <Porch title={words().signIn.title}>
      <Field
        ref={emailField}
        label={words().signIn.email}
        value={email}
        onChangeText={setEmail}
        autoComplete="email"
        inputMode="email"
        autoCapitalize="none"
        maxLength={254}
        onSubmitEditing={submit}
      />
      <Field
        ref={passwordField}
        label={words().signIn.password}
        value={password}
        onChangeText={setPassword}
        autoComplete="current-password"
        secureTextEntry
        maxLength={200}
        onSubmitEditing={submit}
      />
      <Problem text={refusal ? shellWords().refusal(refusal) : ''} />
      <Button look="main" label={words().signIn.submit} disabled={isPending} onPress={submit} />
      {isForgotten ? (
        <Text kind="second" tone="slate" role="status">
          {words().signIn.forgotMore}
        </Text>
      ) : (
        <Button look="bare" label={words().signIn.forgot} onPress={() => setForgotten(true)} />
      )}
      <Text kind="second" tone="slate">
        {words().signIn.byCode}
      </Text>
    </Porch>
  );
};

/** The first visit: the business and its owner's account. */
export const SetUp = () => {
  const [code, setCode] = useState(takeSecret);
  // The walk that follows shows it, for whoever is elsewhere.
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const { typed, set, drop } = useTyped(SET_UP, { business: '', name: '', email: '' });
  const { business, name, email } = typed;
  const [password, setPassword] = useState('');
  const { mutate, error, isPending } = useSetUp();
  const refusal = refusalOf(error);
  const at = (field: string): string =>
    refusal?.field === field ? shellWords().refusal(refusal) : '';
  const said = words().setUp;
  const submit = (): void =>
    mutate(
      { code, business, zone, name, email, password },
      {
        onSuccess: () => {
          drop();
          router.replace('/walk');
        },
      },
    );
  return (
    <Porch title={said.title} more={said.more}>
      <Field
        label={said.code}
        more={said.codeMore}
        value={code}
        onChangeText={setCode}
        autoComplete="off"
        autoCapitalize="characters"
        maxLength={40}
        problem={at('code')}
      />
      <Field
        label={said.business}
        value={business}
        onChangeText={(business) => set({ business })}
        autoComplete="organization"
        maxLength={80}
        problem={at('business')}
      />
      <Field
        label={said.name}
        more={said.nameMore}
        value={name}
        onChangeText={(name) => set({ name })}
        autoComplete="name"
        maxLength={80}
        problem={at('name')}
      />
      <Field
        label={said.email}
        more={said.emailMore}
        value={email}
        onChangeText={(email) => set({ email })}
        autoComplete="email"
        inputMode="email"
        autoCapitalize="none"
        maxLength={254}
        problem={at('email')}
      />
      <Field
        label={said.password}
        more={said.passwordMore(PASSWORD_SHORTEST)}
        value={password}
        onChangeText={setPassword}
        autoComplete="new-password"
        secureTextEntry
        maxLength={200}
        problem={at('password')}
        onSubmitEditing={submit}
      />
      <Problem text={refusal && !refusal.field ? shellWords().refusal(refusal) : ''} />
      <Button look="main" label={said.submit} disabled={isPending} onPress={submit} />
    </Porch>
  );
};

const styles = StyleSheet.create({
  inside: { padding: 24, gap: 16, maxWidth: 480, width: '100%', alignSelf: 'center' },
  mark: { flexDirection: 'row', alignItems: 'center', gap: 12, paddingVertical: 24 },
});
