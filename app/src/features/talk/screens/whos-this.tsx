import type { Row } from '@porch/contract/entries';
import { mailAddress } from '@porch/core/links/mail';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { momentInWords } from '../../../kit/times';
import { MINUTE_MS, useNow } from '../../../shell/live/use-now';
import { useDoorNames, useIsSite, useZone } from '../../../shell/session/house';
import { siteKind } from '../../doors/parts/site-kind';
import { OrdersBeside } from '../../orders/parts/orders-beside';
import { useCalling } from '../../persons/parts/calling';
import { words } from '../words';
import { Alikes } from './alikes';
import type { SamePerson } from './use-same-person';

const Fact = (props: { label: string; said: string; more?: string; href?: string }) => (
  <View style={styles.fact}>
    <Text kind="small" tone="slate">
      {props.label}
    </Text>
    {props.href ? (
      <Text role="link" style={styles.link} {...{ href: props.href }}>
        {props.said}
      </Text>
    ) : (
      <Text>{props.said}</Text>
    )}
    {props.more ? (
      <Text kind="small" tone="slate">
        {props.more}
      </Text>
    ) : null}
  </View>
);

/** What is known of whoever writes: only what they said themselves, and where they are. */
export const WhosThis = (props: {
  row: Row;
  isColumn: boolean;
  same: Pick<SamePerson, 'ask' | 'choose' | 'part'>;
  /** Writes down that something is owed to them. */
  owe: () => void;
  /** Puts something into the answer that is written. */
  putIn: (text: string) => void;
}) => {
  const { row, isColumn, same } = props;
  const now = useNow(MINUTE_MS);
  const theme = useTheme();
  const zone = useZone();
  const doorName = useDoorNames();
  const isSite = useIsSite();
  const { pageOf } = useCalling();
  const { state } = row;
  const said = words().who;
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
        <Text kind="title" role="heading" aria-level={2}>
          {said.title}
        </Text>
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
      {row.threads.some(({ doorId }) => isSite(doorId)) ? (
        <Fact label={said.presence} said={state.isHere ? said.here : left} />
      ) : null}
      {page ? (
        <Fact
          label={said.page}
          said={page.href ? page.title || page.host : said.elsewhere(page.host)}
          more={page.path || undefined}
          href={page.href ?? undefined}
        />
      ) : null}
      <Fact label={said.first} said={momentInWords(state.firstAt, now, zone)} />
      <Fact label={said.last} said={momentInWords(state.lastAt, now, zone)} />
      <Fact label={said.door} said={doorName(row.doorId) || siteKind()} />
      {missing.length > 0 ? (
        <Text kind="second" tone="slate">
          {said.notGiven(missing.join(', '))}
        </Text>
      ) : null}
      {row.threads.length > 1 ? (
        <View style={styles.threads}>
          <Text kind="small" tone="slate" role="heading" aria-level={3}>
            {said.threads}
          </Text>
          {row.threads.map((thread) => {
            const door = doorName(thread.doorId) || siteKind();
            const when = said.wroteLast(momentInWords(thread.lastAt, now, zone));
            const who = [thread.name, door, when].filter(Boolean).join(' · ');
            return (
              <View key={thread.id} style={styles.thread}>
                <Text style={styles.who}>{who}</Text>
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
      <OrdersBeside row={row} putIn={props.putIn} />
      <Alikes row={row} choose={same.choose} />
      <View style={styles.same}>
        <Button label={said.owe} onPress={props.owe} />
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
  same: { alignItems: 'flex-start', gap: 8 },
  link: { textDecorationLine: 'underline' },
});
