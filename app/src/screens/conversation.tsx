import { ROLL_PAGE } from '@porch/contract/limits';
import type { Entry, FileMention } from '@porch/core/conversation';
import { router } from 'expo-router';
import ArrowLeft from 'lucide-react-native/icons/arrow-left';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { FlatList, type NativeScrollEvent, StyleSheet, View } from 'react-native';
import { ApiError } from '../data/api';
import { useCalling } from '../data/calling';
import { useDeeds } from '../data/deeds';
import { useDoorNames, useHouse, useZone } from '../data/house';
import { useLive } from '../data/live-store';
import { type DeedParcel, outbox, useOutbox } from '../data/outbox';
import { useOlder, useRoll } from '../data/roll';
import { LargePicture } from '../parts/large-picture';
import { OwnMark } from '../parts/own-mark';
import { Button, GlyphButton } from '../parts/press';
import { Sheet } from '../parts/sheet';
import { Empty, Failed, RowsComing } from '../parts/states';
import { useKeys } from '../parts/use-keys';
import { useNow } from '../parts/use-now';
import { Words } from '../parts/words';
import { useTheme } from '../theme/use-theme';
import { useWide } from '../theme/use-wide';
import { words } from '../wording';
import { dayInWords } from '../wording/times';
import { Composer } from './composer';
import { RollEntry, UnsentSlip } from './roll-slips';
import { useRowDeeds } from './use-row-deeds';
import { useSamePerson } from './use-same-person';
import { WhosThis } from './whos-this';

const TYPING_SHOWN_MS = 6_000;

type Item =
  | { is: 'older'; key: string }
  | { is: 'day'; key: string; at: number }
  | { is: 'entry'; key: string; entry: Entry }
  | { is: 'unsent'; key: string; parcel: DeedParcel }
  | { is: 'typing'; key: string };

const withDays = (entries: readonly Entry[], zone: string): Item[] => {
  let day = '';
  return entries.flatMap((entry): Item[] => {
    const its = dayInWords(entry.at, zone);
    const item: Item = { is: 'entry', key: `${entry.seq}`, entry };
    if (its === day) return [item];
    day = its;
    return [{ is: 'day', key: `day ${entry.seq}`, at: entry.at }, item];
  });
};

/** Whether somebody really looks at this screen now. */
const useIsLooking = (): boolean => {
  const [isLooking, setLooking] = useState(() => document.visibilityState === 'visible');
  useEffect(() => {
    const look = (): void => setLooking(document.visibilityState === 'visible');
    document.addEventListener('visibilitychange', look);
    return () => document.removeEventListener('visibilitychange', look);
  }, []);
  return isLooking;
};

/** This near to its end, in pixels, a roll follows what is added to it. */
const NEAR_END = 120;

/** Keeps a roll at its end while it grows there, and in its place while older entries come in above. */
const useRollScroll = () => {
  const list = useRef<FlatList<Item>>(null);
  const seen = useRef({ isAtEnd: true, offset: 0, height: 0 });
  // To the end by its own estimate the list does not go all the way when much came in at once.
  const toEnd = (): void =>
    list.current?.scrollToOffset({ offset: seen.current.height, animated: false });
  return {
    list,
    scrollEventThrottle: 32,
    onScroll: ({ nativeEvent }: { nativeEvent: NativeScrollEvent }): void => {
      const { contentOffset, contentSize, layoutMeasurement } = nativeEvent;
      const left = contentSize.height - contentOffset.y - layoutMeasurement.height;
      // What grows below leaves nobody behind who has not gone up themselves.
      const hasStayed = seen.current.isAtEnd && contentOffset.y >= seen.current.offset;
      seen.current = {
        isAtEnd: left < NEAR_END || hasStayed,
        offset: contentOffset.y,
        height: contentSize.height,
      };
    },
    onContentSizeChange: (_width: number, height: number): void => {
      const { isAtEnd, offset, height: before } = seen.current;
      const grown = height - before;
      seen.current.height = height;
      if (isAtEnd) toEnd();
      else if (grown > 0 && offset < NEAR_END) {
        list.current?.scrollToOffset({ offset: offset + grown, animated: false });
      }
    },
    onLayout: (): void => {
      if (seen.current.isAtEnd) toEnd();
    },
  };
};

/** One conversation: its roll, and where the answer is written. */
export const Conversation = ({ id }: { id: string }) => {
  const theme = useTheme();
  const isWide = useWide();
  const zone = useZone();
  const now = useNow();
  const house = useHouse().data;
  const roll = useRoll(id);
  const older = useOlder(id);
  const { read } = useDeeds();
  const { queue, refusals } = useOutbox();
  const { typing } = useLive();
  const { nameOf, pageOf } = useCalling();
  const isLooking = useIsLooking();
  const { list, ...scrolling } = useRollScroll();
  const [picture, setPicture] = useState<FileMention | null>(null);
  const [isWhoOpen, setWhoOpen] = useState(false);
  const leave = useCallback(() => {
    if (!isWide) router.navigate('/line');
  }, [isWide]);
  const { deeds, sheet } = useRowDeeds(leave);
  const doorName = useDoorNames();

  const row = roll.data?.row;
  const { sheet: sameSheet, ...same } = useSamePerson(row, now);
  const standsAt = row?.id;
  useEffect(() => {
    // It was put together with another one: what was said stands there now.
    if (standsAt && standsAt !== id) router.replace(`/line/${standsAt}`);
  }, [standsAt, id]);
  const hasUnread = (row?.state.unread.length ?? 0) > 0;
  const readSeq = useRef(0);
  useEffect(() => {
    if (!row || !hasUnread || !isLooking || readSeq.current >= row.state.lastSeq) return;
    readSeq.current = row.state.lastSeq;
    read(row);
  }, [row, hasUnread, isLooking, read]);

  useKeys({
    e: () => row && row.state.aside === null && deeds.wrapUp(row),
    b: () => row && deeds.putBy(row),
    u: () => row && row.state.aside !== null && deeds.takeBack(row),
    Escape: () => router.navigate('/line'),
  });

  const unsent = queue.filter(
    (parcel) => parcel.lane === id && (parcel.load.do === 'say' || parcel.state === 'failed'),
  );
  const isTyping = now > 0 && Date.now() - (typing[id] ?? 0) < TYPING_SHOWN_MS;
  const entries = roll.data?.entries;
  const items = useMemo((): Item[] => {
    const sent = new Set(entries?.map((entry) => entry.id));
    return [
      ...(roll.data?.hasOlder ? [{ is: 'older', key: 'older' } as const] : []),
      ...withDays(entries ?? [], zone),
      ...unsent
        .filter((parcel) => !sent.has(parcel.id))
        .map((parcel): Item => ({ is: 'unsent', key: parcel.id, parcel })),
      ...(isTyping ? [{ is: 'typing', key: 'typing' } as const] : []),
    ];
  }, [entries, roll.data?.hasOlder, unsent, zone, isTyping]);

  if (roll.isError && !roll.data) {
    const isMissing = roll.error instanceof ApiError && [400, 404].includes(roll.error.status);
    if (!isMissing) return <Failed retry={() => void roll.refetch()} />;
    return (
      <Empty title={words.notFound.title} more={words.notFound.more}>
        <Button label={words.notFound.action} onPress={() => router.navigate('/line')} />
      </Empty>
    );
  }
  if (!row) return <RowsComing />;

  const name = nameOf(row);
  const memberName = (memberId: string): string =>
    house?.team.find((member) => member.id === memberId)?.name ?? words.conversation.team;
  const facts = {
    row,
    receipts: roll.data?.receipts ?? [],
    now,
    zone,
    name,
    memberName,
    doorName,
    pageOf: (page: Parameters<typeof pageOf>[1]) => pageOf(row, page),
    openPicture: setPicture,
  };
  const doings =
    row.state.aside === null ? (
      <>
        <Button look="bare" label={words.conversation.putBy} onPress={() => deeds.putBy(row)} />
        <Button look="bare" label={words.conversation.wrapUp} onPress={() => deeds.wrapUp(row)} />
      </>
    ) : (
      <Button look="bare" label={words.conversation.takeBack} onPress={() => deeds.takeBack(row)} />
    );

  return (
    <View style={styles.sides}>
      <View style={styles.whole}>
        <View style={[styles.beam, { borderColor: theme.ink }]}>
          {isWide ? null : (
            <GlyphButton label={words.conversation.back} onPress={() => router.navigate('/line')}>
              <ArrowLeft size={24} color={theme.ink} aria-hidden />
            </GlyphButton>
          )}
          {row.state.name ? null : <OwnMark id={row.id} size={24} />}
          <Words
            kind={row.state.name ? 'title' : 'name'}
            role="heading"
            aria-level={1}
            numberOfLines={row.state.name ? 1 : 2}
            style={styles.grow}
          >
            {name}
          </Words>
          {isWide ? doings : null}
          {isWide ? null : (
            <Button
              look="bare"
              label={words.conversation.whosThis}
              onPress={() => setWhoOpen(true)}
            />
          )}
        </View>
        <View style={styles.grow} role="log" aria-label={words.conversation.roll}>
          <FlatList
            ref={list}
            {...scrolling}
            data={items}
            keyExtractor={(item) => item.key}
            initialNumToRender={ROLL_PAGE * 2}
            contentContainerStyle={styles.inside}
            renderItem={({ item }) => {
              switch (item.is) {
                case 'older':
                  return (
                    <View style={styles.older}>
                      <Button
                        label={words.conversation.older}
                        disabled={older.isPending}
                        onPress={() => older.mutate()}
                      />
                    </View>
                  );
                case 'day':
                  return (
                    <Words kind="small" tone="slate" style={styles.day}>
                      {dayInWords(item.at, zone)}
                    </Words>
                  );
                case 'entry':
                  return <RollEntry entry={item.entry} facts={facts} />;
                case 'unsent':
                  return (
                    <UnsentSlip
                      parcel={item.parcel}
                      refusal={refusals[item.parcel.id]}
                      retry={() => outbox.retry(item.parcel.id)}
                      drop={() => outbox.drop(item.parcel.id)}
                      putByAgain={() => {
                        outbox.drop(item.parcel.id);
                        deeds.putBy(row);
                      }}
                      facts={facts}
                    />
                  );
                case 'typing':
                  return (
                    <Words kind="second" tone="slate" style={styles.day}>
                      {words.conversation.typing(name)}
                    </Words>
                  );
              }
            }}
          />
        </View>
        <Composer key={id} row={row} now={now} doings={isWide ? null : doings} />
      </View>
      {isWide ? <WhosThis row={row} now={now} isColumn same={same} /> : null}
      {isWhoOpen && !isWide ? (
        <Sheet title={words.who.title} close={() => setWhoOpen(false)}>
          <WhosThis
            row={row}
            now={now}
            isColumn={false}
            same={{
              part: same.part,
              ask: () => {
                setWhoOpen(false);
                same.ask();
              },
            }}
          />
        </Sheet>
      ) : null}
      {picture ? <LargePicture file={picture} close={() => setPicture(null)} /> : null}
      {sheet}
      {sameSheet}
    </View>
  );
};

const styles = StyleSheet.create({
  sides: { flex: 1, flexDirection: 'row' },
  whole: { flex: 1, minWidth: 0 },
  beam: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'center',
    gap: 4,
    paddingHorizontal: 8,
    paddingVertical: 6,
    borderBottomWidth: 2,
  },
  grow: { flex: 1 },
  inside: { paddingVertical: 8, flexGrow: 1, justifyContent: 'flex-end' },
  older: { padding: 12, alignItems: 'center' },
  day: { paddingHorizontal: 24, paddingTop: 14, paddingBottom: 2 },
});
