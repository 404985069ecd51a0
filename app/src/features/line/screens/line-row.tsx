import type { Row } from '@porch/contract/entries';
import { type Patience, patienceOf } from '@porch/core/patience';
import { windowEnd } from '@porch/core/routes';
import Check from 'lucide-react-native/icons/check';
import { memo, useRef, useState } from 'react';
import { Animated, PanResponder, Pressable, StyleSheet, View } from 'react-native';
import { bySpace } from '../../../kit/by-space';
import { DoorPlate } from '../../../kit/drawn/door-plate';
import { drawn } from '../../../kit/drawn/in-own-colours';
import { Wick } from '../../../kit/drawn/wick';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { momentInWords, spanInWords } from '../../../kit/times';
import { wayTo } from '../../../kit/way';
import { kitWords } from '../../../kit/words';
import { useIsTyping } from '../../../shell/live/use-is-typing';
import { useAsTimeGoes } from '../../../shell/live/use-now';
import { useDoorFacts, useZone } from '../../../shell/session/house';
import { deedNames, type RowDeeds } from '../../deeds/parts/row-deeds';
import { useCalling } from '../../persons/parts/calling';
import { useSaid } from '../../persons/parts/last-said';
import { RowName } from '../../persons/parts/row-name';
import { words } from '../words';

/** How far a finger must draw a row aside before its actions stay open, in pixels. */
const DRAWN_ENOUGH = 56;

interface Props extends RowDeeds {
  row: Row;
  /** It stands open. */
  isChosen: boolean;
  /** Whether it is among those that something is to be done with; null: nobody selects any. */
  isSelected: boolean | null;
  select: (row: Row) => void;
}

/** So long before a network's window closes the line says so. */
const WINDOW_SAID_MS = 3 * 3_600_000;

/** When a network lets somebody be answered no more who is owed an answer, where that is near or past. */
const windowInWords = (
  { group, threads: [thread] }: Row,
  windowMs: number | null,
  now: number,
): { said: string; isLate: boolean } | null => {
  const end = windowEnd(thread?.heardAt ?? null, windowMs);
  if (end === null || (group !== 'waiting' && group !== 'note')) return null;
  if (end - now > WINDOW_SAID_MS) return null;
  const isLate = end <= now;
  const { window } = words().patience;
  return { said: isLate ? window.closed : window.closes(spanInWords(end - now)), isLate };
};

const timeOf = (
  row: Row,
  patience: Patience | null,
  now: number,
  { zone, windowMs }: { zone: string; windowMs: number | null },
): { said: string; isLate: boolean } => {
  const { state, group } = row;
  const closing = windowInWords(row, windowMs, now);
  if (closing) return closing;
  if (patience) {
    const span = spanInWords(patience.leftMs);
    const said = patience.isLate ? words().patience.late(span) : words().patience.left(span);
    return { said, isLate: patience.isLate };
  }
  if (group === 'put-by' && state.putByUntil !== null) {
    return {
      said: words().patience.until(momentInWords(state.putByUntil, now, zone)),
      isLate: false,
    };
  }
  if (group === 'note' && state.waitingSince !== null) {
    return {
      said: words().patience.since(momentInWords(state.waitingSince, now, zone)),
      isLate: false,
    };
  }
  return { said: momentInWords(state.lastAt, now, zone), isLate: false };
};

/** What of a row changes as time goes by, and only as far as it can be seen. */
const seenAt = (row: Row, by: { zone: string; windowMs: number | null }) => (now: number) => {
  const patience = patienceOf(row.state, row.dueAt, now);
  return {
    ...timeOf(row, patience, now, by),
    burnt: patience && Math.round((1 - patience.share) * 100),
  };
};

const useDrawing = () => {
  const [isDrawn, setDrawn] = useState(false);
  const x = useRef(new Animated.Value(0)).current;
  const settle = (open: boolean): void => {
    setDrawn(open);
    Animated.timing(x, { toValue: 0, duration: 0, useNativeDriver: false }).start();
  };
  const pan = useRef(
    PanResponder.create({
      onMoveShouldSetPanResponder: (_event, { dx, dy }) =>
        Math.abs(dx) > 14 && Math.abs(dx) > Math.abs(dy) * 2,
      onPanResponderMove: (_event, { dx }) => x.setValue(Math.max(-96, Math.min(96, dx))),
      onPanResponderRelease: (_event, { dx }) => settle(Math.abs(dx) > DRAWN_ENOUGH),
      onPanResponderTerminate: () => settle(false),
    }),
  ).current;
  return { isDrawn, setDrawn, x, handlers: pan.panHandlers };
};

/** Whether a row is selected. */
const Tick = ({ isOn }: { isOn: boolean }) => {
  const theme = useTheme();
  return (
    <View
      {...drawn}
      style={[
        styles.tick,
        { borderColor: theme.ink, backgroundColor: isOn ? theme.ink : theme.paper },
      ]}
    >
      {isOn ? <Check size={18} color={theme.onInk} aria-hidden /> : null}
    </View>
  );
};

/** One conversation in the line. Drawn aside, it shows what can be done with it; pressed long, it is selected. */
export const LineRow = memo(({ row, isChosen, isSelected, select, ...deeds }: Props) => {
  const theme = useTheme();
  const zone = useZone();
  const door = useDoorFacts()(row.doorId);
  const { isDrawn, setDrawn, x, handlers } = useDrawing();
  const { state } = row;
  const isTyping = useIsTyping(row.id);
  const { burnt, ...time } = useAsTimeGoes(seenAt(row, { zone, windowMs: door?.windowMs ?? null }));
  const name = useCalling().nameOf(row);
  const unread = state.unread.length;
  const { lastSaid } = useSaid();
  const last = isTyping ? words().typing : lastSaid(row);
  const label = [
    name,
    time.said,
    unread ? words().unread(unread) : '',
    state.isHere ? words().here : '',
    state.cameBack ? words().cameBack : '',
    state.unreached ? words().unreached : '',
    last,
  ]
    .filter(Boolean)
    .join(', ');
  const isSelecting = isSelected !== null;
  const close = (deed: (row: Row) => void) => () => {
    setDrawn(false);
    deed(row);
  };

  return (
    <View
      role="listitem"
      style={[
        styles.item,
        { borderColor: theme.seam },
        isChosen || isSelected ? { backgroundColor: theme.linen } : null,
      ]}
      {...handlers}
    >
      <Animated.View style={{ transform: [{ translateX: x }] }}>
        <Pressable
          {...wayTo(`/line/${row.id}`, () => (isSelecting ? select(row) : deeds.open(row)))}
          {...(isSelecting
            ? {
                role: 'checkbox' as const,
                'aria-checked': isSelected,
                ...bySpace(() => select(row)),
              }
            : null)}
          // Known by it while it stands there before the app: see shell/start.
          {...{ dataSet: { talk: row.id } }}
          aria-label={label}
          aria-current={isChosen ? 'page' : undefined}
          onLongPress={() => select(row)}
          style={styles.row}
        >
          <Wick burnt={burnt} isLate={time.isLate} />
          <View style={styles.plate}>
            {isSelecting ? <Tick isOn={isSelected} /> : <DoorPlate plate={door?.plate} />}
            {state.isHere && !isSelecting ? (
              <View
                style={[styles.here, { backgroundColor: theme.moss, borderColor: theme.paper }]}
              />
            ) : null}
          </View>
          <View style={styles.middle}>
            <View style={styles.top}>
              <RowName row={row} />
              <Text
                kind="small"
                tone={time.isLate ? 'brick' : row.group === 'waiting' ? 'ember' : 'slate'}
                style={row.group === 'waiting' ? styles.strong : undefined}
              >
                {time.said}
              </Text>
            </View>
            <View style={styles.top}>
              <Text
                kind="second"
                tone={unread ? 'ink' : 'slate'}
                numberOfLines={1}
                style={[styles.last, unread ? styles.strong : null]}
              >
                {state.unreached ? (
                  <Text kind="second" tone="brick">{`${words().unreached} · `}</Text>
                ) : null}
                {state.cameBack ? `${words().cameBack} · ${last}` : last}
              </Text>
              {unread ? (
                <View style={[styles.unread, { backgroundColor: theme.ink }]}>
                  <Text kind="small" tone="onInk">
                    {unread > 99 ? '99+' : unread}
                  </Text>
                </View>
              ) : null}
            </View>
          </View>
        </Pressable>
      </Animated.View>
      {isDrawn && !isSelecting ? (
        <View style={styles.deeds}>
          {state.aside === null ? (
            <>
              <Button label={deedNames().wrapUp} onPress={close(deeds.wrapUp)} />
              <Button label={deedNames().putBy} onPress={close(deeds.putBy)} />
            </>
          ) : (
            <Button label={deedNames().takeBack} onPress={close(deeds.takeBack)} />
          )}
          <Button label={words().selected.one} onPress={close(select)} />
          <Button look="bare" label={kitWords().close} onPress={() => setDrawn(false)} />
        </View>
      ) : null}
    </View>
  );
});

const styles = StyleSheet.create({
  item: { borderBottomWidth: 1 },
  // A drag is for drawing the row aside: with a mouse it would mark the words instead.
  row: {
    flexDirection: 'row',
    alignItems: 'center',
    minHeight: 72,
    paddingRight: 16,
    userSelect: 'none',
  },
  plate: { paddingLeft: 12, paddingRight: 12 },
  here: {
    position: 'absolute',
    right: 8,
    bottom: -3,
    width: 12,
    height: 12,
    borderRadius: 2,
    borderWidth: 2,
  },
  tick: {
    width: 26,
    height: 26,
    borderWidth: 2,
    borderRadius: 4,
    alignItems: 'center',
    justifyContent: 'center',
  },
  middle: { flex: 1, gap: 2, paddingVertical: 10 },
  top: { flexDirection: 'row', alignItems: 'baseline', gap: 8 },
  last: { flex: 1 },
  strong: { fontWeight: '600' },
  unread: { minWidth: 24, paddingHorizontal: 6, borderRadius: 2, alignItems: 'center' },
  deeds: { flexDirection: 'row', gap: 8, paddingHorizontal: 18, paddingBottom: 10 },
});
