import type { Row } from '@porch/contract/entries';
import { patienceOf } from '@porch/core/patience';
import { memo, useRef, useState } from 'react';
import { Animated, PanResponder, Pressable, StyleSheet, View } from 'react-native';
import { useCalling } from '../data/calling';
import { useZone } from '../data/house';
import { useLive } from '../data/live-store';
import { DoorPlate } from '../parts/door-plate';
import { Button } from '../parts/press';
import { RowName } from '../parts/row-name';
import { Wick } from '../parts/wick';
import { Words } from '../parts/words';
import { useTheme } from '../theme/use-theme';
import { words } from '../wording';
import { exactly, momentInWords, spanInWords } from '../wording/times';

const TYPING_SHOWN_MS = 6_000;
/** How far a finger must draw a row aside before its actions stay open, in pixels. */
const DRAWN_ENOUGH = 56;

export interface RowDeeds {
  open: (row: Row) => void;
  wrapUp: (row: Row) => void;
  putBy: (row: Row) => void;
  takeBack: (row: Row) => void;
}

interface Props extends RowDeeds {
  row: Row;
  now: number;
  isChosen: boolean;
}

const timeOf = (row: Row, now: number, zone: string): { said: string; isLate: boolean } => {
  const { state, group } = row;
  const patience = patienceOf(state, now);
  if (patience) {
    const span = spanInWords(patience.leftMs);
    const said = patience.isLate ? words.patience.late(span) : words.patience.left(span);
    return { said, isLate: patience.isLate };
  }
  if (group === 'put-by' && state.putByUntil !== null) {
    return {
      said: words.patience.until(momentInWords(state.putByUntil, now, zone)),
      isLate: false,
    };
  }
  if (group === 'note' && state.waitingSince !== null) {
    return {
      said: words.patience.since(momentInWords(state.waitingSince, now, zone)),
      isLate: false,
    };
  }
  return { said: momentInWords(state.lastAt, now, zone), isLate: false };
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

/** One conversation in the line. Drawn aside or pressed long, it shows what can be done with it. */
export const LineRow = memo(({ row, now, isChosen, ...deeds }: Props) => {
  const theme = useTheme();
  const zone = useZone();
  const { typing } = useLive();
  const { isDrawn, setDrawn, x, handlers } = useDrawing();
  const { state } = row;
  const time = timeOf(row, now, zone);
  const name = useCalling().nameOf(row);
  const unread = state.unread.length;
  const isTyping = Date.now() - (typing[row.id] ?? 0) < TYPING_SHOWN_MS;
  const before = state.lastBy === 'team' ? words.line.you : '';
  const last = isTyping ? words.line.typing : `${before}${state.lastWords || words.line.file}`;
  const label = [
    name,
    time.said,
    unread ? words.line.unread(unread) : '',
    state.isHere ? words.line.here : '',
    state.cameBack ? words.line.cameBack : '',
    last,
  ]
    .filter(Boolean)
    .join(', ');
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
        isChosen ? { backgroundColor: theme.linen } : null,
      ]}
      {...handlers}
    >
      <Animated.View style={{ transform: [{ translateX: x }] }}>
        <Pressable
          role="link"
          aria-label={label}
          aria-current={isChosen ? 'page' : undefined}
          onPress={() => deeds.open(row)}
          onLongPress={() => setDrawn(true)}
          style={styles.row}
        >
          <Wick patience={patienceOf(state, now)} />
          <View style={styles.plate}>
            <DoorPlate />
            {state.isHere ? (
              <View
                style={[styles.here, { backgroundColor: theme.moss, borderColor: theme.paper }]}
              />
            ) : null}
          </View>
          <View style={styles.middle}>
            <View style={styles.top}>
              <RowName row={row} />
              <Words
                kind="small"
                tone={time.isLate ? 'brick' : row.group === 'waiting' ? 'ember' : 'slate'}
                aria-label={exactly(state.lastAt, zone)}
                style={row.group === 'waiting' ? styles.strong : undefined}
              >
                {time.said}
              </Words>
            </View>
            <View style={styles.top}>
              <Words
                kind="second"
                tone={unread ? 'ink' : 'slate'}
                numberOfLines={1}
                style={[styles.last, unread ? styles.strong : null]}
              >
                {state.cameBack ? `${words.line.cameBack} · ${last}` : last}
              </Words>
              {unread ? (
                <View style={[styles.unread, { backgroundColor: theme.ink }]}>
                  <Words kind="small" tone="onInk">
                    {unread > 99 ? '99+' : unread}
                  </Words>
                </View>
              ) : null}
            </View>
          </View>
        </Pressable>
      </Animated.View>
      {isDrawn ? (
        <View style={styles.deeds}>
          {state.aside === null ? (
            <>
              <Button label={words.conversation.wrapUp} onPress={close(deeds.wrapUp)} />
              <Button label={words.conversation.putBy} onPress={close(deeds.putBy)} />
            </>
          ) : (
            <Button label={words.conversation.takeBack} onPress={close(deeds.takeBack)} />
          )}
          <Button look="bare" label={words.keys.close} onPress={() => setDrawn(false)} />
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
  middle: { flex: 1, gap: 2, paddingVertical: 10 },
  top: { flexDirection: 'row', alignItems: 'baseline', gap: 8 },
  last: { flex: 1 },
  strong: { fontWeight: '600' },
  unread: { minWidth: 24, paddingHorizontal: 6, borderRadius: 2, alignItems: 'center' },
  deeds: { flexDirection: 'row', gap: 8, paddingHorizontal: 18, paddingBottom: 10 },
});
