import { withPut } from '@porch/client/emoji';
import type { Row } from '@porch/contract/entries';
import type { Fit, QuickReply } from '@porch/contract/replies';
import type { Picked } from '@porch/core/conversation';
import { fillIn, openGaps, type Stop, type Stretch } from '@porch/core/replies';
import { type RefObject, useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { TextInput } from 'react-native';
import { areaOf } from '../../../kit/fields/marked-input';
import { useGapFacts } from '../../replies/data/facts';
import { picturesOf } from '../../replies/data/pictures';
import { useQuickReplies } from '../../replies/data/replies';
import { useBehindDots } from '../../replies/parts/behind-dots';

/** What stands before a place so that what is put there is a word, or a paragraph, of its own. */
const gapBefore = (before: string): string =>
  before.trim() === '' || /\s$/.test(before) ? '' : '\n';

/** Quick replies where an answer is written: put in at the cursor, with the way from gap to gap. */
export const usePicking = (props: {
  row: Row;
  field: RefObject<TextInput | null>;
  typed: string;
  change: (text: string) => void;
  addFiles: (files: File[]) => void;
  addThings: (things: readonly { id: string; name: string }[]) => void;
  onMissing: () => void;
}) => {
  const { row, field, typed, change } = props;
  const factsOf = useGapFacts();
  const replies = useQuickReplies().data;
  const [picked, setPicked] = useState<Picked | null>(null);
  const [cursor, setCursor] = useState(typed.length);
  const wanted = useRef<Stretch | null>(null);
  /** Where the cursor is to be, though somebody is elsewhere: in the picker of emoji. */
  const left = useRef<number | null>(null);
  const gaps = useMemo(() => openGaps(typed), [typed]);

  const select = ({ from, to }: Stretch): void => {
    const area = areaOf(field);
    area?.focus();
    area?.setSelectionRange(from, to);
    setCursor(to);
  };
  useLayoutEffect(() => {
    // The field has the new text only once it is drawn.
    const stretch = wanted.current;
    const area = areaOf(field);
    if (area && left.current !== null && area.value === typed) {
      area.setSelectionRange(left.current, left.current);
      left.current = null;
    }
    if (!stretch || area?.value !== typed) return;
    wanted.current = null;
    area.focus();
    area.setSelectionRange(stretch.from, stretch.to);
    setCursor(stretch.to);
  }, [typed, field]);

  const put = (text: string, language: string, from: Picked, { from: at, to }: Stretch): void => {
    const filled = fillIn(text, factsOf(row, language));
    const before = typed.slice(0, at) + gapBefore(typed.slice(0, at));
    const end = before.length + filled.text.length;
    const [stop] = filled.stops;
    wanted.current = stop
      ? { from: before.length + stop.from, to: before.length + stop.to }
      : { from: end, to: end };
    change(before + filled.text + typed.slice(to));
    setPicked(from);
  };

  const take = (reply: QuickReply, place: Stretch): void => {
    put(reply.text, reply.language, { kind: 'reply', id: reply.id }, place);
    props.addThings(reply.shelf);
    if (reply.pictures.length === 0) return;
    void picturesOf(reply).then((pictures) => {
      const had = pictures.flatMap((picture) => picture ?? []);
      if (had.length > 0) props.addFiles(had);
      if (had.length < pictures.length) props.onMissing();
    });
  };

  /** Where the cursor is. */
  const here = (): Stretch => {
    const area = areaOf(field);
    return area
      ? { from: area.selectionStart, to: area.selectionEnd }
      : { from: typed.length, to: typed.length };
  };

  const dots = useBehindDots(typed, cursor, take);

  /** The gap that comes behind the cursor. */
  const nextGap = (): Stop | undefined => gaps.find(({ from }) => from >= cursor);

  const press = (event: KeyboardEvent): boolean => {
    if (event.ctrlKey || event.metaKey || event.altKey || event.shiftKey) return false;
    if (dots.press(event.key)) return true;
    const next = event.key === 'Tab' ? nextGap() : undefined;
    if (next) select(next);
    return next !== undefined;
  };

  return {
    list: dots.list,
    aria: dots.aria,
    gaps,
    /** From what the text was made; nothing of an empty one. */
    picked: typed.trim() === '' ? null : picked,
    press,
    select,
    noteCursor: (): void => setCursor(areaOf(field)?.selectionEnd ?? typed.length),
    /** Puts words in at the cursor, as a paragraph of their own, and goes on there. */
    putWords: (words: string): void => {
      const { from, to } = here();
      const before = typed.slice(0, from);
      const put = withPut(typed, { from, to }, gapBefore(before) + words);
      wanted.current = { from: put.cursor, to: put.cursor };
      change(put.text);
    },
    /** Puts a sign in at the cursor; whoever picks the next one stays where they do. */
    putSign: (sign: string): void => {
      const { text, cursor: next } = withPut(typed, here(), sign);
      left.current = next;
      change(text);
    },
    takeHere: (reply: QuickReply): void => take(reply, here()),
    takeFit: (fit: Fit): void => {
      const reply = replies?.find(({ id }) => id === fit.id);
      if (reply) take(reply, here());
      else put(fit.text, fit.language, { kind: fit.kind, id: fit.id }, here());
    },
    forget: (): void => setPicked(null),
  };
};
