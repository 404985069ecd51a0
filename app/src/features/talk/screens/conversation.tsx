import type { Row } from '@porch/contract/entries';
import { ROLL_PAGE } from '@porch/contract/limits';
import { amendedIn, cameIn, type Entry, type FileMention } from '@porch/core/conversation';
import { router } from 'expo-router';
import ArrowLeft from 'lucide-react-native/icons/arrow-left';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { FlatList, type NativeScrollEvent, StyleSheet, View } from 'react-native';
import { useShallow } from 'zustand/react/shallow';
import { OwnMark } from '../../../kit/drawn/own-mark';
import { Button, GlyphButton } from '../../../kit/press';
import { LargePicture } from '../../../kit/sheets/large-picture';
import { Sheet } from '../../../kit/sheets/sheet';
import { Empty, Failed, RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { useWide } from '../../../kit/theme/use-wide';
import { dayInWords } from '../../../kit/times';
import { useKeys } from '../../../shell/frame/use-keys';
import { type DeedParcel, outbox, useOutbox } from '../../../shell/live/outbox';
import { tellSees } from '../../../shell/live/use-connection';
import { useIsTyping } from '../../../shell/live/use-is-typing';
import { useNow } from '../../../shell/live/use-now';
import { fileAddress } from '../../../shell/pictures/addresses';
import { useDoorNames, useHouse, useIsSite, useZone } from '../../../shell/session/house';
import { ApiError } from '../../../shell/session/refused';
import { shellWords } from '../../../shell/words';
import { useDeeds } from '../../deeds/data/deeds';
import { deedNames } from '../../deeds/parts/row-deeds';
import { useRowDeeds } from '../../deeds/parts/use-row-deeds';
import { useOwe } from '../../follow-ups/parts/use-owe';
import { useCalling } from '../../persons/parts/calling';
import { useKeepAnswer } from '../../replies/parts/use-keep-answer';
import { type Item, withDays, withQuiet } from '../data/items';
import { useOlder, useRoll } from '../data/roll';
import { words } from '../words';
import { Composer } from './composer';
import { QuietSlip } from './quiet-slip';
import type { RollFacts } from './roll-facts';
import { RollEntry, UnsentSlip } from './roll-slips';
import { RungSlip } from './rung-slip';
import { useIsLooking } from './use-is-looking';
import { useSamePerson } from './use-same-person';
import { WhosThis } from './whos-this';

const QUARTER_MS = 15 * 60_000;
const noReceipts: RollFacts['receipts'] = [];

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

const isShownIn =
  (id: string) =>
  ({ lane, load, state }: DeedParcel): boolean =>
    lane === id && (load.do === 'say' || state === 'failed');

/** What became of the answers that went by mail: the last that was said of each counts. */
const mailsIn = (entries: readonly Entry[]): Map<number, boolean> =>
  new Map(
    entries.flatMap((entry) =>
      entry.kind === 'mailed'
        ? entry.of.map((seq) => [seq, entry.failed === undefined] as const)
        : [],
    ),
  );

/** Whether mails that were held back are theirs: the last that was said of each counts. */
const decidedIn = (entries: readonly Entry[]): Map<string, boolean> =>
  new Map(
    entries.flatMap((entry) =>
      entry.kind === 'held-decided' ? [[entry.of, entry.isTheirs] as const] : [],
    ),
  );

const noEntries: readonly Entry[] = [];

/** What the slips of a roll need to know; the same as long as nothing of it has changed. */
const useRollFacts = (
  row: Row | undefined,
  receipts: RollFacts['receipts'],
  entries: readonly Entry[],
  openPicture: RollFacts['openPicture'],
): RollFacts | null => {
  // Times are told by the day; in every zone it begins with a quarter of an hour.
  const now = useNow(QUARTER_MS);
  const zone = useZone();
  const team = useHouse().data?.team;
  const doorName = useDoorNames();
  const { nameOf, pageOf } = useCalling();
  const isSite = useIsSite();
  const keepAnswer = useKeepAnswer(row ?? null);
  return useMemo(
    () =>
      row
        ? {
            row,
            receipts,
            mails: mailsIn(entries),
            decided: decidedIn(entries),
            amended: amendedIn(entries),
            came: cameIn(entries),
            now,
            zone,
            name: nameOf(row),
            memberName: (memberId) =>
              team?.find(({ id }) => id === memberId)?.name ?? words().conversation.team,
            doorName,
            isSite,
            byDoor: (doorId) =>
              isSite(doorId)
                ? words().conversation.door
                : words().conversation.byDoor(doorName(doorId)),
            pageOf: (page) => pageOf(row, page),
            openPicture,
            keepAnswer,
          }
        : null,
    [
      row,
      receipts,
      entries,
      now,
      zone,
      team,
      isSite,
      doorName,
      nameOf,
      pageOf,
      openPicture,
      keepAnswer,
    ],
  );
};

/** One conversation: its roll, and where the answer is written. */
export const Conversation = ({ id }: { id: string }) => {
  const theme = useTheme();
  const isWide = useWide();
  const zone = useZone();
  const roll = useRoll(id);
  const older = useOlder(id);
  const { read, say } = useDeeds();
  const refusals = useOutbox((waiting) => waiting.refusals);
  const unsent = useOutbox(useShallow(({ queue }) => queue.filter(isShownIn(id))));
  const isTyping = useIsTyping(id);
  const isLooking = useIsLooking();
  const { list, ...scrolling } = useRollScroll();
  const [picture, setPicture] = useState<FileMention | null>(null);
  const [isWhoOpen, setWhoOpen] = useState(false);
  const putting = useRef<((text: string) => void) | null>(null);
  const putIn = (text: string): void => {
    setWhoOpen(false);
    putting.current?.(text);
  };
  const leave = useCallback(() => {
    if (!isWide) router.navigate('/line');
  }, [isWide]);
  const { deeds, sheet } = useRowDeeds(leave);

  const row = roll.data?.row;
  const facts = useRollFacts(
    row,
    roll.data?.receipts ?? noReceipts,
    roll.data?.entries ?? noEntries,
    setPicture,
  );
  /** Why the last answer to somebody waits, where its network has said so. */
  const heldUpIn = (threadId: string): string | null => {
    const { receipts = [], entries = [] } = roll.data ?? {};
    const isTheirs = (of: number) =>
      entries.some((entry) => entry.seq === of && entry.threadId === threadId);
    const held = receipts.find(({ seq, step, why }) => step === 'waiting' && why && isTheirs(seq));
    return held?.why ?? null;
  };
  const { sheet: sameSheet, ...same } = useSamePerson(row);
  const { sheet: oweSheet, ask: askOwed } = useOwe(row, facts?.name ?? '');
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

  useEffect(() => {
    tellSees(isLooking ? id : null);
    return () => tellSees(null);
  }, [id, isLooking]);

  useKeys({
    e: () => row && row.state.aside === null && deeds.wrapUp(row),
    b: () => row && deeds.putBy(row),
    f: askOwed,
    u: () => row && row.state.aside !== null && deeds.takeBack(row),
    Escape: () => router.navigate('/line'),
  });

  const entries = roll.data?.entries;
  const items = useMemo((): Item[] => {
    const sent = new Set(entries?.map((entry) => entry.id));
    return [
      ...(roll.data?.hasOlder ? [{ is: 'older', key: 'older' } as const] : []),
      ...withQuiet(withDays(entries ?? [], zone)),
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
      <Empty title={shellWords().notFound.title} more={shellWords().notFound.more}>
        <Button label={shellWords().notFound.action} onPress={() => router.navigate('/line')} />
      </Empty>
    );
  }
  if (!row || !facts) return <RowsComing />;

  const { name } = facts;
  const doings =
    row.state.aside === null ? (
      <>
        <Button look="bare" label={deedNames().putBy} onPress={() => deeds.putBy(row)} />
        <Button look="bare" label={deedNames().wrapUp} onPress={() => deeds.wrapUp(row)} />
      </>
    ) : (
      <Button look="bare" label={deedNames().takeBack} onPress={() => deeds.takeBack(row)} />
    );

  return (
    <View style={styles.sides}>
      <View style={styles.whole}>
        <View style={[styles.beam, { borderColor: theme.ink }]}>
          {isWide ? null : (
            <GlyphButton label={words().conversation.back} onPress={() => router.navigate('/line')}>
              <ArrowLeft size={24} color={theme.ink} aria-hidden />
            </GlyphButton>
          )}
          {row.state.name ? null : <OwnMark id={row.id} size={24} />}
          <Text
            kind={row.state.name ? 'title' : 'name'}
            role="heading"
            aria-level={1}
            numberOfLines={row.state.name ? 1 : 2}
            style={styles.grow}
          >
            {name}
          </Text>
          {isWide ? doings : null}
          {isWide ? null : (
            <Button
              look="bare"
              label={words().conversation.whosThis}
              onPress={() => setWhoOpen(true)}
            />
          )}
        </View>
        <View style={styles.grow} role="log" aria-label={words().conversation.roll}>
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
                        label={words().conversation.older}
                        disabled={older.isPending}
                        onPress={() => older.mutate()}
                      />
                    </View>
                  );
                case 'day':
                  return (
                    <Text kind="small" tone="slate" style={styles.day}>
                      {dayInWords(item.at, zone)}
                    </Text>
                  );
                case 'entry':
                  return <RollEntry entry={item.entry} facts={facts} />;
                case 'quiet':
                  return <QuietSlip items={item.items} facts={facts} />;
                case 'rung':
                  return <RungSlip line={item.line} facts={facts} />;
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
                      without={(load) => {
                        outbox.drop(item.parcel.id);
                        const { text, files, threadId, picked, shown } = load;
                        say(row, text, files, threadId, picked, shown);
                      }}
                      facts={facts}
                    />
                  );
                case 'typing':
                  return (
                    <Text kind="second" tone="slate" style={styles.day}>
                      {words().conversation.typing(name)}
                    </Text>
                  );
              }
            }}
          />
        </View>
        <Composer
          key={id}
          row={row}
          doings={isWide ? null : doings}
          putting={putting}
          heldUpIn={heldUpIn}
        />
      </View>
      {isWide ? <WhosThis row={row} isColumn same={same} owe={askOwed} putIn={putIn} /> : null}
      {isWhoOpen && !isWide ? (
        <Sheet title={words().who.title} close={() => setWhoOpen(false)}>
          <WhosThis
            row={row}
            isColumn={false}
            putIn={putIn}
            owe={() => {
              setWhoOpen(false);
              askOwed();
            }}
            same={{
              part: same.part,
              choose: (other) => {
                setWhoOpen(false);
                same.choose(other);
              },
              ask: () => {
                setWhoOpen(false);
                same.ask();
              },
            }}
          />
        </Sheet>
      ) : null}
      {picture ? (
        <LargePicture
          name={picture.name}
          source={fileAddress(picture.id, 'whole')}
          close={() => setPicture(null)}
        />
      ) : null}
      {sheet}
      {sameSheet}
      {oweSheet}
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
