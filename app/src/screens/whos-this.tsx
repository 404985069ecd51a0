import type { Row } from '@porch/contract/entries';
import { mailAddress } from '@porch/core/links';
import { ScrollView, StyleSheet, View } from 'react-native';
import { useCalling } from '../data/calling';
import { useDoorNames, useZone } from '../data/house';
import { Button } from '../parts/press';
import { Words } from '../parts/words';
import { useTheme } from '../theme/use-theme';
import { words } from '../wording';
import { momentInWords } from '../wording/times';
import type { SamePerson } from './use-same-person';

const Fact = (props: { label: string; said: string; more?: string; href?: string }) => (
  <View style={styles.fact}>
    <Words kind="small" tone="slate">
      {props.label}
    </Words>
    {props.href ? (
      <Words role="link" style={styles.link} {...{ href: props.href }}>
        {props.said}
      </Words>
    ) : (
      <Words>{props.said}</Words>
    )}
    {props.more ? (
      <Words kind="small" tone="slate">
        {props.more}
      </Words>
    ) : null}
  </View>
);

/** What is known of whoever writes: only what they said themselves, and where they are. */
export const WhosThis = (props: {
  row: Row;
  now: number;
  isColumn: boolean;
  same: Pick<SamePerson, 'ask' | 'part'>;
}) => {
  const { row, now, isColumn, same } = props;
  const theme = useTheme();
  const zone = useZone();
  const doorName = useDoorNames();
  const { pageOf } = useCalling();
  const { state } = row;
  const said = words.who;
  const left =
    state.movedAt === null ? said.never : said.gone(momentInWords(state.movedAt, now, zone));
  const page = state.page && pageOf(row, state.page);
  const missing = (['name', 'email', 'phone'] as const)
    .filter((field) => !state[field])
    .map((field) => said[field].toLowerCase());
  return (
    <ScrollView
      role={isColumn ? 'complementary' : undefined}
      aria-label={isColumn ? said.title : undefined}
      style={isColumn ? [styles.column, { borderColor: theme.seam }] : undefined}
      contentContainerStyle={isColumn ? styles.inside : styles.insideSheet}
    >
      {isColumn ? (
        <Words kind="title" role="heading" aria-level={2}>
          {said.title}
        </Words>
      ) : null}
      {state.name ? <Fact label={said.name} said={state.name} /> : null}
      {state.email ? (
        <Fact label={said.email} said={state.email} href={mailAddress(state.email)} />
      ) : null}
      {state.phone ? (
        <Fact
          label={said.phone}
          said={state.phone}
          href={`tel:${state.phone.replace(/[^\d+]/g, '')}`}
        />
      ) : null}
      {state.own.map(({ id, label, value }) => (
        <Fact key={id} label={label} said={value} />
      ))}
      <Fact label={said.presence} said={state.isHere ? said.here : left} />
      {page ? (
        <Fact
          label={said.page}
          said={page.href ? page.title || page.host : said.elsewhere(page.host)}
          more={page.href ? page.host : undefined}
          href={page.href ?? undefined}
        />
      ) : null}
      <Fact label={said.first} said={momentInWords(state.firstAt, now, zone)} />
      <Fact label={said.last} said={momentInWords(state.lastAt, now, zone)} />
      <Fact
        label={said.door}
        said={[words.conversation.website, doorName(row.doorId)].filter(Boolean).join(' · ')}
      />
      {missing.length > 0 ? (
        <Words kind="second" tone="slate">
          {said.notGiven(missing.join(', '))}
        </Words>
      ) : null}
      {row.threads.length > 1 ? (
        <View style={styles.threads}>
          <Words kind="small" tone="slate" role="heading" aria-level={3}>
            {said.threads}
          </Words>
          {row.threads.map((thread) => {
            const door = doorName(thread.doorId) || words.conversation.website;
            const when = said.wroteLast(momentInWords(thread.lastAt, now, zone));
            const who = [thread.name, door, when].filter(Boolean).join(' · ');
            return (
              <View key={thread.id} style={styles.thread}>
                <Words style={styles.who}>{who}</Words>
                <Button
                  look="bare"
                  label={said.part}
                  aria-label={said.partThis(who)}
                  onPress={() => same.part(thread)}
                />
              </View>
            );
          })}
        </View>
      ) : null}
      <View style={styles.same}>
        <Button label={said.same} onPress={same.ask} />
      </View>
    </ScrollView>
  );
};

const styles = StyleSheet.create({
  column: {
    flexGrow: 0,
    flexShrink: 0,
    flexBasis: '31%',
    minWidth: 200,
    maxWidth: 280,
    borderLeftWidth: 1,
  },
  inside: { padding: 20, gap: 16 },
  insideSheet: { gap: 16 },
  fact: { gap: 2 },
  threads: { gap: 8 },
  thread: { flexDirection: 'row', alignItems: 'center', flexWrap: 'wrap', gap: 4 },
  who: { flexGrow: 1, flexShrink: 1, flexBasis: 120 },
  same: { alignItems: 'flex-start' },
  link: { textDecorationLine: 'underline' },
});
