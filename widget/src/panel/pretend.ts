import type { FromVisitor, ToVisitor, VisitorEntry } from '@porch/contract/visitor';
import { type Cards, toldOf } from '@porch/core/cards';
import type { Light } from '@porch/core/lamp';
import type { Connection } from './connection';

const FOUND_MOST = 3;

/**
 * The other side of the wire in the dressing room: takes everything, keeps nothing. What is shown is
 * the real panel all the same; only nobody hears it.
 */
export const pretend = (
  hear: (message: ToVisitor) => void,
  changed: (isConnected: boolean) => void,
  lamp: () => Light,
  /** The first hello; empty: none is said. */
  hello: () => string,
  /** What is asked often. */
  asked: () => Cards | null,
): Connection => {
  let seq = 0;
  const say = (message: Extract<FromVisitor, { do: 'say' }>): void => {
    seq += 1;
    const entry: VisitorEntry = {
      seq,
      id: message.id,
      at: Date.now(),
      text: message.text,
      files: [],
      by: 'visitor',
      name: '',
      face: null,
    };
    hear({ say: 'entries', entries: [entry], seq, last: message.id });
    hear({ say: 'taken', id: message.id });
    hear({ say: 'reached', reached: { hasSeq: seq, readSeq: seq } });
    const text = hello();
    if (!text || seq > 1 || lamp().state !== 'lit') return;
    seq += 1;
    const id = 'first-hello';
    const said: VisitorEntry = { ...entry, seq, id, text, by: 'door' };
    hear({ say: 'entries', entries: [said], seq, last: id });
  };
  const put = (entry: Omit<VisitorEntry, 'seq' | 'at' | 'name' | 'face'>): void => {
    seq += 1;
    const whole = { ...entry, seq, at: Date.now(), name: '', face: null };
    hear({ say: 'entries', entries: [whole], seq, last: entry.id });
  };
  const tap = ({ id, card: cardId }: Extract<FromVisitor, { do: 'tap' }>): void => {
    const all = asked();
    const card = all?.cards.find((one) => one.id === cardId);
    if (!all || !card) {
      hear({ say: 'refused', id, refusal: { code: 'card-gone' } });
      return;
    }
    put({ id, text: card.question, files: [], by: 'visitor', isTap: true });
    hear({ say: 'taken', id });
    const picture = { width: 4, height: 3 };
    const files = card.pictureIds.map((one) => ({
      id: one,
      name: card.question,
      type: 'image/jpeg',
      sizeBytes: 0,
      picture,
    }));
    put({ id: `${id}-answer`, text: card.answer, files, by: 'door', card: toldOf(all, card) });
  };
  const order = ({ id }: Extract<FromVisitor, { do: 'order' }>): void =>
    hear({ say: 'refused', id, refusal: { code: 'order-not-found' } });
  const find = ({ id, text }: Extract<FromVisitor, { do: 'find' }>): void => {
    const words = text.toLowerCase().match(/[\p{L}\p{N}]{4,}/gu) ?? [];
    const has = (text: string): boolean =>
      words.some((word) => text.toLowerCase().includes(word.slice(0, 5)));
    const found = asked()?.cards.filter(({ question, answer }) => has(`${question} ${answer}`));
    hear({ say: 'found', id, cards: (found ?? []).slice(0, FOUND_MOST) });
  };
  const answer = (message: FromVisitor): void => {
    if (message.do === 'say') say(message);
    else if (message.do === 'tap') tap(message);
    else if (message.do === 'order') order(message);
    else if (message.do === 'find') find(message);
    else if (message.do === 'enough') hear({ say: 'taken', id: message.id });
    else if (message.do === 'details' || message.do === 'check') {
      hear({ say: 'taken', id: message.id });
    }
  };
  setTimeout(() => {
    changed(true);
    hear({
      say: 'welcome',
      now: Date.now(),
      lamp: lamp(),
      usual: null,
      opens: [],
      entries: [],
      continues: false,
      hasOlder: false,
      reached: { hasSeq: 0, readSeq: 0 },
      details: { name: '', email: '', phone: '', own: {} },
      hasConsented: false,
      mails: true,
      seq: 0,
      last: null,
    });
  });
  return {
    send: (message) => {
      setTimeout(() => answer(message));
      return true;
    },
    anew: () => {},
  };
};
