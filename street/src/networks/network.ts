import { randomUUID } from 'node:crypto';
import { type Fault, LATE_MS, SLOW_MS } from './faults';

/** Somebody on the network: how it calls them, and what they call themselves. */
export interface Customer {
  id: string;
  name: string;
}

export type State = 'sent' | 'delivered' | 'seen' | 'failed';

/** Something beside words, as the network's own program would send it. */
export type Odd = 'place' | 'card' | 'sticker' | 'unknown';

export interface Said {
  id: string;
  customer: Customer;
  by: 'customer' | 'business';
  text: string;
  /** Names of pictures that the network keeps; of the business, links. */
  pictures: string[];
  odd: Odd | null;
  at: number;
  /** By this its network counts what is written there. */
  nth: number;
  state: State;
  isChanged: boolean;
  isWithdrawn: boolean;
}

/** What a network tells the door. */
export type Happened =
  | { what: 'said'; said: Said }
  | { what: 'changed'; said: Said; at: number; id: string }
  | { what: 'withdrawn'; said: Said; at: number; id: string }
  | { what: 'state'; said: Said; id: string }
  | { what: 'typing'; customer: Customer }
  | { what: 'listing' };

/** How the door is reached, as its owner has put it in; and by what the business shows that it is who it is. */
export interface Setup {
  /** Where things are handed over; '' until it is put in. */
  address: string;
  word: string;
  /** What the business's account is called: a number, a page, a name. */
  account: string;
  key: string;
}

export interface Handing {
  body: string;
  headers: Record<string, string>;
}

/** What is special to one network: its name, its people, and its words on the wire. */
export interface Wire {
  path: string;
  title: string;
  /** What its customers are called by: a phone number, a name. */
  customers: readonly Customer[];
  /** What it tells the door, one thing at a time; null: it says nothing of that. */
  hand: (happened: Happened, setup: Setup, now: number) => Handing | null;
  /** What it asks of an address that was put in; null: nothing. */
  greeting: (setup: Setup) => { url: string; expects: string } | null;
  /** What else stands on its page. */
  more?: () => string;
}

const TRIES_MOST = 40;
const FIRST_WAIT_MS = 500;
const LONGEST_WAIT_MS = 15_000;
const SAID_MOST = 2_000;
/** Two things that are handed over in the wrong order are held so long for that. */
const HELD_MS = 1_200;
const DELIVERED_MS = 300;

/** A made-up network: who wrote what, what the door was told, and what may go wrong. */
export const createNetwork = (wire: Wire, now: () => number) => {
  const said: Said[] = [];
  const byKey = new Map<string, Said>();
  const seenBy = new Set<string>();
  let fault: Fault = 'none';
  let setup: Setup = { address: '', word: '', account: '', key: '' };
  let lastAnswer = '';
  const timers = new Set<NodeJS.Timeout>();

  let lastAt = 0;
  let nth = 0;
  /** A network's own clock gives no two things the same moment. */
  const moment = (): number => {
    lastAt = Math.max(now(), lastAt + 1);
    return lastAt;
  };
  const nextNth = (): number => {
    nth += 1;
    return nth;
  };

  const after = (ms: number, work: () => void): void => {
    const timer = setTimeout(() => {
      timers.delete(timer);
      work();
    }, ms);
    timers.add(timer);
  };

  /** Proved anew each time: what is said again late is no older than the first time. */
  const post = async (make: () => Handing | null, tries = 0): Promise<void> => {
    const handing = make();
    if (!handing) return;
    const { body, headers } = handing;
    const answer = await fetch(setup.address, {
      method: 'POST',
      headers,
      body,
      signal: AbortSignal.timeout(10_000),
    }).catch((error: Error) => ({ status: 0, ok: false, statusText: error.message }));
    lastAnswer = `${answer.status} ${answer.statusText}`.trim();
    // As real ones do: what is wrong for good is not said again.
    const isForGood = answer.status >= 400 && answer.status < 500 && answer.status !== 429;
    if (answer.ok || isForGood || tries >= TRIES_MOST) return;
    after(Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** tries), () => {
      void post(make, tries + 1);
    });
  };

  const tell = (happened: Happened, holdMs = 0): void => {
    if (!setup.address) return;
    const isWrong = fault === 'wrong-mark';
    const word = isWrong ? `${setup.word} of somebody else` : setup.word;
    after(holdMs, () => {
      const make = () => wire.hand(happened, { ...setup, word }, now());
      void post(make);
      if (fault === 'twice') void post(make);
    });
  };

  const keep = (one: Said): Said => {
    said.push(one);
    if (said.length > SAID_MOST) said.shift();
    return one;
  };

  let isEven = false;
  /** Every other one is held back, so that the next overtakes it. */
  const holdMs = (): number => {
    if (fault !== 'out-of-order') return 0;
    isEven = !isEven;
    return isEven ? HELD_MS : 0;
  };

  const reach = (one: Said, state: State): void => {
    if (fault === 'no-receipts' || one.state === state) return;
    after(fault === 'late-receipts' ? LATE_MS : DELIVERED_MS, () => {
      if (one.state === 'seen') return;
      one.state = state;
      tell({ what: 'state', said: one, id: randomUUID() });
    });
  };

  return {
    wire,
    fault: (): Fault => fault,
    setFault: (next: Fault): void => {
      fault = next;
    },
    setup: (): Setup => setup,
    lastAnswer: (): string => lastAnswer,
    /** The owner puts something in at the network; it asks at once whether it is meant. Gives what is wrong, '' for nothing. */
    connect: async (next: Partial<Setup>): Promise<string> => {
      setup = { ...setup, ...next };
      const greeting = setup.address ? wire.greeting(setup) : null;
      if (!greeting) return '';
      const answer = await fetch(greeting.url).catch(() => null);
      const text = answer?.ok ? await answer.text() : '';
      return text === greeting.expects
        ? ''
        : `The address did not answer as it should (${answer?.status ?? 'nobody there'}).`;
    },
    customer: (id: string): Customer =>
      wire.customers.find((one) => one.id === id) ??
      said.find(({ customer }) => customer.id === id)?.customer ?? { id, name: '' },
    talk: (customerId: string): Said[] => said.filter(({ customer }) => customer.id === customerId),
    byId: (id: string): Said | null => said.find((one) => one.id === id) ?? null,
    all: (): readonly Said[] => said,
    /** A customer says something. */
    say: (customer: Customer, what: Partial<Pick<Said, 'text' | 'pictures' | 'odd'>>): Said => {
      const one = keep({
        id: randomUUID(),
        customer,
        by: 'customer',
        text: '',
        pictures: [],
        odd: null,
        ...what,
        at: moment(),
        nth: nextNth(),
        state: 'sent',
        isChanged: false,
        isWithdrawn: false,
      });
      tell({ what: 'said', said: one }, holdMs());
      return one;
    },
    change: (id: string, text: string): void => {
      const one = said.find((each) => each.id === id && each.by === 'customer');
      if (!one) return;
      Object.assign(one, { text, isChanged: true });
      tell({ what: 'changed', said: one, at: moment(), id: randomUUID() });
    },
    withdraw: (id: string): void => {
      const one = said.find((each) => each.id === id && each.by === 'customer');
      if (!one) return;
      one.isWithdrawn = true;
      tell({ what: 'withdrawn', said: one, at: moment(), id: randomUUID() });
    },
    tellListing: (): void => tell({ what: 'listing' }),
    type: (customer: Customer): void => tell({ what: 'typing', customer }),
    /** The business says something; under the same key it is said once. */
    take: (key: string, customer: Customer, text: string, pictures: string[]): Said => {
      const known = byKey.get(key);
      if (known) return known;
      const one = keep({
        id: randomUUID(),
        customer,
        by: 'business',
        text,
        pictures,
        odd: null,
        at: moment(),
        nth: nextNth(),
        state: 'sent',
        isChanged: false,
        isWithdrawn: false,
      });
      byKey.set(key, one);
      reach(one, 'delivered');
      return one;
    },
    /** Somebody has their phone in hand: what was said to them is read. */
    look: (customerId: string): void => {
      for (const one of said) {
        const isNew = one.by === 'business' && one.state !== 'seen' && !seenBy.has(one.id);
        if (one.customer.id !== customerId || !isNew) continue;
        seenBy.add(one.id);
        reach(one, 'seen');
      }
    },
    waitMs: (): number => (fault === 'slow' ? SLOW_MS : 0),
    close: (): void => {
      for (const timer of timers) clearTimeout(timer);
    },
  };
};

export type Network = ReturnType<typeof createNetwork>;
