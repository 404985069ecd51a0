import { DAY_MINUTES, type Spans } from '@porch/core/hours/opening';
import { drawn, type Hold, holdAt } from '@porch/core/hours/week';
import { type PointerEvent, useRef, useState } from 'react';
import { corner } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';

/** A finger is this broad, in pixels. */
const REACH_PX = 16;
/** A press that moves less than this is a tap. */
const TAP_PX = 6;
const HEIGHT_PX = 36;
const MARKS = [6, 12, 18].map((hour) => hour * 60);

const share = (minutes: number): string => `${(minutes / DAY_MINUTES) * 100}%`;

/**
 * A day from midnight to midnight, on which open time is drawn with a finger. It is for whoever sees and points; the
 * same is done in words and by keyboard beside it.
 */
export const DayTrack = (props: {
  spans: Spans;
  /** How many minutes still belong to the night before. */
  spill: number;
  isFixed: boolean;
  onDraw: (spans: Spans) => void;
  onTap: () => void;
}) => {
  const theme = useTheme();
  const held = useRef<{ x: number; start: number; hold: Hold; isDrag: boolean } | null>(null);
  const [ahead, setAhead] = useState<Spans | null>(null);
  const minuteAt = (event: PointerEvent<HTMLElement>): number => {
    const { left, width } = event.currentTarget.getBoundingClientRect();
    return ((event.clientX - left) / width) * DAY_MINUTES;
  };
  const take = (event: PointerEvent<HTMLElement>): void => {
    if (props.isFixed || !event.isPrimary) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const start = minuteAt(event);
    const reach = (REACH_PX / event.currentTarget.getBoundingClientRect().width) * DAY_MINUTES;
    const hold = holdAt(props.spans, start, reach);
    held.current = { x: event.clientX, start, hold, isDrag: false };
  };
  const draw = (event: PointerEvent<HTMLElement>): void => {
    const from = held.current;
    if (!from || (!from.isDrag && Math.abs(event.clientX - from.x) < TAP_PX)) return;
    from.isDrag = true;
    setAhead(drawn(props.spans, from.hold, from.start, minuteAt(event)));
  };
  const letGo = (event: PointerEvent<HTMLElement>): void => {
    const from = held.current;
    held.current = null;
    setAhead(null);
    if (!from) return;
    if (!from.isDrag) props.onTap();
    else props.onDraw(drawn(props.spans, from.hold, from.start, minuteAt(event)));
  };
  const leave = (): void => {
    held.current = null;
    setAhead(null);
  };
  const bar = (from: number, to: number, look: object, key: string) => (
    <div
      key={key}
      style={{
        position: 'absolute',
        top: 0,
        bottom: 0,
        left: share(from),
        width: share(Math.min(to, DAY_MINUTES) - from),
        boxSizing: 'border-box',
        ...look,
      }}
    />
  );
  return (
    <div
      aria-hidden
      data-track
      onPointerDown={take}
      onPointerMove={draw}
      onPointerUp={letGo}
      onPointerCancel={leave}
      style={{
        position: 'relative',
        height: HEIGHT_PX,
        // A finger that goes up or down scrolls the page; one that goes along draws.
        touchAction: 'pan-y',
        cursor: props.isFixed ? 'default' : 'crosshair',
        userSelect: 'none',
        overflow: 'hidden',
        boxSizing: 'border-box',
        border: `1px solid ${theme.edge}`,
        borderRadius: corner,
        backgroundColor: theme.linen,
      }}
    >
      {MARKS.map((minute) =>
        bar(minute, minute + 1, { borderLeft: `1px solid ${theme.seam}` }, `mark-${minute}`),
      )}
      {props.spill > 0
        ? bar(0, props.spill, { borderBottom: `6px solid ${theme.slate}` }, 'spill')
        : null}
      {(ahead ?? props.spans).map(({ from, to }) =>
        bar(
          from,
          to,
          {
            backgroundColor: ahead ? theme.slate : theme.ink,
            borderRadius: corner - 1,
            // What goes on past midnight has no end here.
            ...(to > DAY_MINUTES ? { borderTopRightRadius: 0, borderBottomRightRadius: 0 } : {}),
          },
          `span-${from}`,
        ),
      )}
    </div>
  );
};
