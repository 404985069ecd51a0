import type { FromVisitor, ToVisitor, VisitorEntry } from '@porch/contract/visitor';
import type { Light } from '@porch/core/lamp';
import type { Connection } from './connection';

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
  const answer = (message: FromVisitor): void => {
    if (message.do === 'say') say(message);
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
