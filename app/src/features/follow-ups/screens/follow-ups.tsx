import type { OwedShown } from '@porch/contract/follow-ups';
import { type DueGroup, dueGroupOf, dueGroups } from '@porch/core/promises';
import { Suspense, useState } from 'react';
import { FlatList, Pressable, StyleSheet, View } from 'react-native';
import { DoorPlate } from '../../../kit/drawn/door-plate';
import { Button } from '../../../kit/press';
import { Empty, Failed, RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { momentInWords, spanInWords } from '../../../kit/times';
import { wayTo } from '../../../kit/way';
import { offerUndo } from '../../../shell/frame/undo';
import { MINUTE_MS, useNow } from '../../../shell/live/use-now';
import { useDoorFacts, useHouse, useZone } from '../../../shell/session/house';
import { OweSheet } from '../../deeds/parts/late-sheets';
import { useCalling } from '../../persons/parts/calling';
import { useSaid } from '../../persons/parts/last-said';
import { RowName } from '../../persons/parts/row-name';
import { useFollowUps, useOwing, type Which } from '../data/follow-ups';
import { words } from '../words';
import { FeedPart } from './feed-part';

/** More than this are not counted. */
const COUNTED_MOST = 100;

type Item = { is: 'group'; group: DueGroup; count: number } | { is: 'owed'; owed: OwedShown };

/** What is open under the headings of when it is due, the headings that have something under them. */
const grouped = (owed: readonly OwedShown[], now: number, zone: string): Item[] =>
  dueGroups.flatMap((group) => {
    const theirs = owed.filter(({ followUp }) => dueGroupOf(followUp.dueAt, now, zone) === group);
    if (theirs.length === 0) return [];
    return [
      { is: 'group' as const, group, count: theirs.length },
      ...theirs.map((one) => ({ is: 'owed' as const, owed: one })),
    ];
  });

const useMemberName = (): ((id: string | null) => string) => {
  const team = useHouse().data?.team ?? [];
  return (id) => team.find((one) => one.id === id)?.name ?? '';
};

/** One thing owed: to whom, what, by when, whose it is; and what can be done with it. */
const OwedRow = ({ owed, change }: { owed: OwedShown; change: (owed: OwedShown) => void }) => {
  const theme = useTheme();
  const zone = useZone();
  const now = useNow(MINUTE_MS);
  const nameOfMember = useMemberName();
  const doorFacts = useDoorFacts();
  const { nameOf } = useCalling();
  const { done, again, change: changeIt } = useOwing();
  const me = useHouse().data?.me?.id ?? null;
  const { followUp, row } = owed;
  const who = nameOf(row);
  const time = momentInWords(followUp.dueAt, now, zone);
  const isLate = followUp.doneAt === null && followUp.dueAt <= now;
  const when =
    followUp.doneAt === null
      ? isLate
        ? words().lateBy(spanInWords(now - followUp.dueAt))
        : words().due(time)
      : words().doneAt(momentInWords(followUp.doneAt, now, zone), nameOfMember(followUp.doneBy));
  const { lastSaid } = useSaid();
  const whose =
    followUp.whose === null ? words().nobodys : words().whose(nameOfMember(followUp.whose));
  const finish = (): void => {
    const deedId = done(owed);
    offerUndo({ said: words().undone, deedIds: [deedId], undo: () => again(owed) });
  };
  return (
    <View role="listitem" style={[styles.row, { borderColor: theme.seam }]}>
      <Pressable {...wayTo(`/line/${row.id}`)} style={styles.told}>
        <DoorPlate plate={doorFacts(row.doorId)?.plate} />
        <View style={styles.grow}>
          <View style={styles.top}>
            <RowName row={row} />
            <Text kind="small" tone={isLate ? 'brick' : 'slate'}>
              {when}
            </Text>
          </View>
          <Text kind="second" numberOfLines={2}>
            {followUp.what || `${words().whys[followUp.why]}: ${lastSaid(row)}`}
          </Text>
          <Text kind="small" tone="slate">
            {whose}
          </Text>
        </View>
      </Pressable>
      <View style={styles.doings}>
        {followUp.doneAt === null ? (
          <>
            <Button label={words().done} aria-label={words().doneOf(who)} onPress={finish} />
            <Button
              look="bare"
              label={words().change}
              aria-label={words().changeOf(who)}
              onPress={() => change(owed)}
            />
            {followUp.whose === me ? null : (
              <Button
                look="bare"
                label={words().take}
                aria-label={words().takeOf(who)}
                onPress={() => changeIt(owed, { whose: me })}
              />
            )}
          </>
        ) : (
          <Button
            look="bare"
            label={words().again}
            aria-label={words().againOf(who)}
            onPress={() => again(owed)}
          />
        )}
      </View>
    </View>
  );
};

/** What is owed, to whom, by when and by whom, until it is done. */
export const FollowUps = () => {
  const zone = useZone();
  const now = useNow(MINUTE_MS);
  const [which, setWhich] = useState<Which>('due');
  const [changing, setChanging] = useState<OwedShown | null>(null);
  const list = useFollowUps(which);
  const { nameOf } = useCalling();
  const { change } = useOwing();
  const pages = list.data?.pages ?? [];
  const owed = pages.flatMap((page) => page.owed);
  const missed = pages[0]?.missed ?? 0;
  if (list.isError && !list.data) return <Failed retry={() => void list.refetch()} />;
  if (!list.data) return <RowsComing />;
  const items: Item[] =
    which === 'due'
      ? grouped(owed, now, zone)
      : owed.map((one) => ({ is: 'owed' as const, owed: one }));
  const under = (
    <View role="listitem" style={styles.under}>
      {list.hasNextPage ? (
        <Button
          label={words().older}
          disabled={list.isFetchingNextPage}
          onPress={() => void list.fetchNextPage()}
        />
      ) : null}
      <Button
        look="bare"
        label={which === 'due' ? words().showDone : words().showOpen}
        onPress={() => setWhich(which === 'due' ? 'done' : 'due')}
      />
      {missed > 0 ? (
        <Text kind="second" tone="slate">
          {words().missed(missed < COUNTED_MOST ? `${missed}` : words().many)}
        </Text>
      ) : null}
      <FeedPart />
    </View>
  );
  return (
    <View style={styles.whole}>
      <FlatList
        role="list"
        data={items}
        keyExtractor={(item) => (item.is === 'group' ? item.group : item.owed.followUp.id)}
        renderItem={({ item }) =>
          item.is === 'group' ? (
            <View role="listitem" style={styles.group}>
              <Text kind="name" role="heading" aria-level={2}>
                {words().group(words().groups[item.group], item.count)}
              </Text>
            </View>
          ) : (
            <OwedRow owed={item.owed} change={setChanging} />
          )
        }
        ListEmptyComponent={
          which === 'due' ? (
            <View role="listitem">
              <Empty title={words().empty.title} more={words().empty.more} />
            </View>
          ) : (
            <View role="listitem" style={styles.group}>
              <Text tone="slate">{words().noneDone}</Text>
            </View>
          )
        }
        ListFooterComponent={under}
      />
      {changing ? (
        <Suspense fallback={null}>
          <OweSheet
            title={words().sheet(nameOf(changing.row))}
            known={changing.followUp}
            close={() => setChanging(null)}
            save={(next) => {
              change(changing, next);
              setChanging(null);
            }}
          />
        </Suspense>
      ) : null}
    </View>
  );
};

const styles = StyleSheet.create({
  whole: { flex: 1, width: '100%', maxWidth: 760, alignSelf: 'center' },
  group: { paddingHorizontal: 16, paddingTop: 16, paddingBottom: 4 },
  row: { borderBottomWidth: 1, paddingHorizontal: 16, paddingVertical: 10, gap: 6 },
  told: { flexDirection: 'row', gap: 12 },
  grow: { flex: 1, gap: 2 },
  top: { flexDirection: 'row', justifyContent: 'space-between', flexWrap: 'wrap', gap: 8 },
  doings: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8, paddingLeft: 36 },
  under: { padding: 16, gap: 16, alignItems: 'flex-start' },
});
