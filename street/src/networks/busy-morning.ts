import type { Customer, Network } from './network';

/** What people ask on a busy morning; each of them says one of these, and thanks for an answer. */
const asks: readonly string[] = [
  'Good morning! Are you open already?',
  'Do you have a fern for a dark hall?',
  'How much is the big monstera in the window?',
  'Can you bring my order before noon?',
  'My calathea curls its leaves. Is it thirsty?',
  'Is the repotting bench free at eleven?',
  'Which pot do I take for a 12 cm plant?',
  'Do you take back empty pots?',
  'Is the blue pot from yesterday still there?',
  'May I bring my dog?',
];
const names: readonly string[] = [
  'Ada',
  'Bo',
  'Cleo',
  'Dara',
  'Edda',
  'Finn',
  'Gus',
  'Hilde',
  'Ivo',
  'Juno',
];

/** Conversations of a busy morning, and messages in each. */
const TALKS = 40;
const WORDS_EACH = 3;
/** At the usual speed one begins every six seconds. */
const BETWEEN_MS = 6_000;

const customerAt = ({ wire }: Network, at: number): Customer => {
  const name = names[at % names.length] ?? '';
  // Drama numbers (Ofcom), and names like those that the network gives.
  const isByNumber = wire.customers.some(({ id }) => id.startsWith('+'));
  const id = isByNumber ? `+44770090${String(500 + at).padStart(4, '0')}` : `${name}.${at}`;
  return { id, name };
};

/** Plays forty conversations across all networks; `speed` 1: as it would be, 60: in a few seconds. */
export const createBusyMorning = (networks: readonly Network[]) => {
  const timers = new Set<NodeJS.Timeout>();
  const after = (ms: number, deed: () => void): void => {
    const timer = setTimeout(() => {
      timers.delete(timer);
      deed();
    }, ms);
    timers.add(timer);
  };
  return {
    /** How many messages it will be. */
    play: (speed: number): number => {
      for (let at = 0; at < TALKS; at += 1) {
        const network = networks[at % networks.length];
        if (!network) continue;
        const customer = customerAt(network, at);
        for (let nth = 0; nth < WORDS_EACH; nth += 1) {
          const text = nth === 0 ? (asks[at % asks.length] ?? '') : `${nth + 1} of ${WORDS_EACH}`;
          after(((at + nth * 2) * BETWEEN_MS) / speed, () => network.say(customer, { text }));
        }
      }
      return TALKS * WORDS_EACH;
    },
    stop: (): void => {
      for (const timer of timers) clearTimeout(timer);
    },
  };
};
