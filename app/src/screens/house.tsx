import type { Door } from '@porch/contract/team';
import { router } from 'expo-router';
import Check from 'lucide-react-native/icons/check';
import { type ReactNode, useState } from 'react';
import { Linking, Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { ApiError } from '../data/api';
import { playBell } from '../data/bell';
import { type Choice, choose, useChoice } from '../data/choices';
import { useHouse, useSaveBusiness, useSaveSites, useSignOut } from '../data/house';
import { outbox, useOutbox } from '../data/outbox';
import { Field } from '../parts/field';
import { Button } from '../parts/press';
import { Failed, RowsComing } from '../parts/states';
import { Words } from '../parts/words';
import { corner, touch } from '../theme/sizes';
import { useTheme } from '../theme/use-theme';
import { words } from '../wording';

const said = words.house;

/** What a form says of a failed request: the sentence, and beside which field. */
const problemOf = (error: Error | null, field?: string): string => {
  if (!error) return '';
  if (!(error instanceof ApiError)) return words.refusal({ code: 'our-fault' });
  return field === undefined || error.refusal.field === field ? words.refusal(error.refusal) : '';
};

const Section = ({ title, children }: { title: string; children: ReactNode }) => {
  const theme = useTheme();
  return (
    <View role="region" aria-label={title} style={[styles.section, { borderColor: theme.seam }]}>
      <Words kind="name" role="heading" aria-level={2}>
        {title}
      </Words>
      {children}
    </View>
  );
};

const BusinessForm = (props: { name: string; zone: string; isOwner: boolean }) => {
  const [name, setName] = useState(props.name);
  const [zone, setZone] = useState(props.zone);
  const { mutate, error, isPending, isSuccess, reset } = useSaveBusiness();
  return (
    <Section title={said.business}>
      <Field
        label={said.businessName}
        value={name}
        maxLength={80}
        editable={props.isOwner}
        problem={problemOf(error, 'name')}
        onChangeText={(text) => {
          setName(text);
          reset();
        }}
      />
      <Field
        label={said.zone}
        value={zone}
        maxLength={64}
        autoCapitalize="none"
        editable={props.isOwner}
        problem={problemOf(error, 'zone')}
        onChangeText={(text) => {
          setZone(text);
          reset();
        }}
      />
      {props.isOwner ? (
        <View style={styles.row}>
          <Button label={said.save} disabled={isPending} onPress={() => mutate({ name, zone })} />
          {isSuccess ? (
            <Words tone="moss" role="status">
              {said.saved}
            </Words>
          ) : null}
        </View>
      ) : (
        <Words kind="second" tone="slate">
          {said.onlyOwner}
        </Words>
      )}
    </Section>
  );
};

const Copied = ({ text, label }: { text: string; label: string }) => {
  const [outcome, setOutcome] = useState<'copied' | 'forbidden' | null>(null);
  const copy = async (): Promise<void> => {
    try {
      // Browsers give a clipboard to secure pages only.
      await navigator.clipboard.writeText(text);
      setOutcome('copied');
    } catch {
      setOutcome('forbidden');
    }
  };
  return (
    <>
      <Button label={outcome === 'copied' ? said.copied : label} onPress={() => void copy()} />
      {outcome === 'forbidden' ? (
        <Words kind="second" tone="brick" role="alert">
          {said.notCopied}
        </Words>
      ) : null}
    </>
  );
};

const DoorForm = ({ door, isOwner }: { door: Door; isOwner: boolean }) => {
  const theme = useTheme();
  const [sites, setSites] = useState(door.sites.join('\n'));
  const { mutate, error, isPending, isSuccess, reset } = useSaveSites(door.id);
  return (
    <Section title={said.door}>
      <Words>{said.doorMore}</Words>
      <Words
        kind="second"
        selectable
        style={[styles.snippet, { backgroundColor: theme.linen, borderColor: theme.edge }]}
      >
        {door.snippet}
      </Words>
      <View style={styles.row}>
        <Copied text={door.snippet} label={said.copy} />
      </View>
      <Words kind="label">{said.link}</Words>
      <Words kind="second" selectable>
        {door.link}
      </Words>
      <View style={styles.row}>
        <Copied text={door.link} label={said.copyLink} />
        <Button
          look="bare"
          role="link"
          label={said.openLink}
          onPress={() => void Linking.openURL(door.link)}
        />
      </View>
      <Field
        label={said.sites}
        more={said.sitesMore}
        value={sites}
        multiline
        numberOfLines={3}
        autoCapitalize="none"
        editable={isOwner}
        maxLength={4_000}
        problem={problemOf(error)}
        onChangeText={(text) => {
          setSites(text);
          reset();
        }}
      />
      {door.sites.length === 0 ? (
        <Words kind="second" tone="ember">
          {said.sitesNone}
        </Words>
      ) : null}
      {isOwner ? (
        <View style={styles.row}>
          <Button
            label={said.save}
            disabled={isPending}
            onPress={() =>
              mutate(
                sites
                  .split('\n')
                  .map((line) => line.trim())
                  .filter(Boolean),
                { onSuccess: (saved) => setSites(saved.sites.join('\n')) },
              )
            }
          />
          {isSuccess ? (
            <Words tone="moss" role="status">
              {said.saved}
            </Words>
          ) : null}
        </View>
      ) : null}
    </Section>
  );
};

const ChoiceSwitch = ({ choice, label }: { choice: Choice; label: string }) => {
  const theme = useTheme();
  const isOn = useChoice(choice);
  return (
    <Pressable
      role="switch"
      aria-checked={isOn}
      aria-label={label}
      onPress={() => choose(choice, !isOn)}
      style={styles.choice}
    >
      <View
        style={[
          styles.box,
          { borderColor: theme.ink },
          isOn ? { backgroundColor: theme.ink } : null,
        ]}
      >
        {isOn ? <Check size={20} color={theme.onInk} aria-hidden /> : null}
      </View>
      <Words style={styles.grow}>{label}</Words>
      <Words kind="second" tone="slate">
        {isOn ? said.on : said.off}
      </Words>
    </Pressable>
  );
};

const Account = ({ name }: { name: string }) => {
  const signOut = useSignOut();
  const { queue } = useOutbox();
  const [asked, setAsked] = useState<{ everywhere: boolean } | null>(null);
  const go = async (everywhere: boolean): Promise<void> => {
    try {
      await signOut.mutateAsync(everywhere);
    } catch {
      // Said below; whoever is still signed in keeps what waits.
      return;
    }
    outbox.clear();
    router.replace('/sign-in');
  };
  const ask = (everywhere: boolean): void => {
    if (queue.length > 0) setAsked({ everywhere });
    else void go(everywhere);
  };
  return (
    <Section title={said.account}>
      <Words>{said.signedInAs(name)}</Words>
      {asked ? (
        <View role="alert" style={styles.section}>
          <Words tone="brick">{said.unsent(queue.length)}</Words>
          <Button
            tone="brick"
            label={said.signOutAnyway}
            onPress={() => void go(asked.everywhere)}
          />
        </View>
      ) : null}
      <View style={styles.row}>
        <Button label={said.signOut} onPress={() => ask(false)} />
        <Button look="bare" label={said.signOutAll} onPress={() => ask(true)} />
      </View>
      {signOut.error ? (
        <Words tone="brick" role="alert">
          {problemOf(signOut.error)}
        </Words>
      ) : null}
    </Section>
  );
};

/** The house itself: the business, its website door, this device, and the account. */
export const House = () => {
  const { data: house, isError, refetch } = useHouse();
  if (isError && !house) return <Failed retry={() => void refetch()} />;
  if (!house?.me || !house.business) return <RowsComing />;
  const isOwner = house.me.role === 'owner';
  return (
    <ScrollView contentContainerStyle={styles.inside}>
      <Words kind="large" role="heading" aria-level={1}>
        {said.title}
      </Words>
      {house.doors.map((door) => (
        <DoorForm key={door.id} door={door} isOwner={isOwner} />
      ))}
      <BusinessForm {...house.business} isOwner={isOwner} />
      <Section title={said.device}>
        <ChoiceSwitch choice="sound" label={said.sound} />
        <View style={styles.row}>
          <Button look="bare" label={said.hearSound} onPress={playBell} />
        </View>
        <ChoiceSwitch choice="shortcuts" label={said.shortcuts} />
      </Section>
      <Account name={house.me.name} />
    </ScrollView>
  );
};

const styles = StyleSheet.create({
  inside: { padding: 16, gap: 20, maxWidth: 720, width: '100%', alignSelf: 'center' },
  section: { gap: 12, paddingBottom: 20, borderBottomWidth: 1 },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 12 },
  snippet: { padding: 12, borderWidth: 1, borderRadius: corner, fontFamily: 'monospace' },
  choice: { minHeight: touch, flexDirection: 'row', alignItems: 'center', gap: 12 },
  box: {
    width: 28,
    height: 28,
    borderWidth: 2,
    borderRadius: corner,
    alignItems: 'center',
    justifyContent: 'center',
  },
  grow: { flex: 1 },
});
