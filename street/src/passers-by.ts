import { randomBytes, randomUUID } from 'node:crypto';
import type { FromVisitor, ToVisitor } from '@porch/contract/visitor';
import WebSocket from 'ws';

/** A made-up visitor who writes on the website; speaks the same wire as the panel does. */
interface PasserBy {
  name: string;
  page: string;
  title: string;
  says: string;
  thanks: string;
}

const passersBy: readonly PasserBy[] = [
  {
    name: 'Tilda',
    page: '/',
    title: 'Houseplants',
    says: 'Hello! Do you have any trailing plants that forgive a forgetful person?',
    thanks: 'Perfect, I come by this week.',
  },
  {
    name: 'Corin',
    page: '/delivery',
    title: 'Delivery',
    says: 'If I order now, does it come on Friday?',
    thanks: 'Great, ordering now.',
  },
  {
    name: '',
    page: '/monstera-deliciosa',
    title: 'Monstera deliciosa',
    says: 'How tall is it at the moment, with the pot?',
    thanks: 'Thank you!',
  },
  {
    name: 'Merete',
    page: '/repotting-bench',
    title: 'Repotting bench',
    says: 'Can I wait while you repot, or do I leave the plant with you?',
    thanks: 'Good to know. See you then.',
  },
  {
    name: 'Ansel',
    page: '/',
    title: 'Houseplants',
    says: 'Is there a toilet for a small child? We would come on Saturday.',
    thanks: 'You are life savers.',
  },
  {
    name: 'Livia',
    page: '/monstera-deliciosa',
    title: 'Monstera deliciosa',
    says: 'I have a cat who chews everything. What would you take instead?',
    thanks: 'The cat says thank you too.',
  },
];

const FIRST_AFTER_MS = 20_000;
const BETWEEN_MS = 75_000;
const STAYS_MS = 240_000;
const WRITES_FOR_MS = 4_000;

const visit = (passerBy: PasserBy, door: string, server: string, site: string): void => {
  const address = `${server.replace(/^http/, 'ws')}/door/${door}/live`;
  const socket = new WebSocket(address, { origin: server });
  const page = { url: `${site}${passerBy.page}`, title: `${passerBy.title} – Quillfern Nursery` };
  const tell = (message: FromVisitor): void => {
    if (socket.readyState === WebSocket.OPEN) socket.send(JSON.stringify(message));
  };
  const say = (text: string): void => {
    tell({ do: 'typing' });
    setTimeout(() => tell({ do: 'say', id: randomUUID(), text, fileIds: [], page }), WRITES_FOR_MS);
  };
  let hasThanked = false;

  const hear = (message: ToVisitor): void => {
    if (message.say === 'welcome') say(passerBy.says);
    if (message.say === 'taken' && passerBy.name && !hasThanked) {
      tell({ do: 'details', id: randomUUID(), name: passerBy.name });
    }
    if (message.say !== 'entries') return;
    const answer = message.entries.find((entry) => entry.by === 'team');
    if (!answer) return;
    tell({ do: 'read', upTo: answer.seq });
    if (hasThanked) return;
    hasThanked = true;
    say(passerBy.thanks);
  };

  socket.on('open', () =>
    tell({ do: 'hello', token: randomBytes(32).toString('base64url'), since: 0, site }),
  );
  socket.on('message', (data) => hear(JSON.parse(String(data)) as ToVisitor));
  socket.on('error', () => socket.terminate());
  setTimeout(() => socket.close(), STAYS_MS).unref();
};

/** Lets made-up visitors come by now and then, one after another. Gives a way to stop them. */
export const letPassersBy = (door: string, server: string, site: string): (() => void) => {
  let next = 0;
  const come = (): void => {
    const passerBy = passersBy[next % passersBy.length];
    next += 1;
    if (passerBy) visit(passerBy, door, server, site);
  };
  const first = setTimeout(come, FIRST_AFTER_MS);
  const later = setInterval(come, BETWEEN_MS);
  return () => {
    clearTimeout(first);
    clearInterval(later);
  };
};
