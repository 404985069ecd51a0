import type { Inbound } from '@porch/contract/doors';
import type { Happening } from '@porch/core/conversation';
import { newGreeting } from '@porch/core/greetings';
import { newThing } from '@porch/core/shelf';
import { cardOf } from '@porch/core/test-kit/cards';
import type { DoorKind } from '../src/doors/registry';
import { websiteCan } from '../src/doors/website/kind';
import { hashSecret } from '../src/security/tokens';
import type { House } from './house';
import { setUp } from './house';
import { clientId, until, visit, visitorToken } from './panel';
import type { PushService } from './push-service';

const minute = 60_000;

/** Asks for consent and for one thing of the owner's own from now on; where doors are dressed at all. */
const dressTheDoor = async (house: House, cookie: string, doorId: string): Promise<void> => {
  const at = `/api/doors/${doorId}`;
  const { status, body: dressed } = await house.ask('GET', `${at}/dress`, { cookie });
  if (status === 404) return;
  const dress = dressed.draft ?? dressed.published;
  dress.consent = { isAsked: true, link: 'https://quillfern.example/privacy' };
  dress.guestBook.own = [{ id: 'which-plant-1', kind: 'text', label: 'Which plant?', choices: [] }];
  dress.guestBook.lit.asks.push({ field: 'which-plant-1', isRequired: false });
  const body = { revision: dressed.revision, dress };
  const saved = await house.ask('PUT', `${at}/draft`, { cookie, body });
  const revision = saved.body.revision;
  const { status: published } = await house.ask('POST', `${at}/publish`, {
    cookie,
    body: { revision },
  });
  if (published !== 200) throw new Error(`not published: ${published}`);
};

/**
 * Two conversations in which everything happens that a roll can tell of, with files from both sides.
 * Only what any release could do is used, so that a file of it can be made by each.
 */
export const liveThrough = async (house: House): Promise<{ cookie: string }> => {
  const { cookie, door } = await setUp(house);
  await dressTheDoor(house, cookie, door.id);
  const talkOf = (group: 'waiting' | 'note'): string =>
    house.store.conversations.page(group, null, 1)[0]?.id ?? '';
  const stateOf = (id: string) => house.store.conversations.byId(id)?.state;
  const deed = async (id: string, what: object): Promise<void> => {
    house.clock.advance(minute);
    const path = `/api/conversations/${id}/deeds`;
    const { status } = await house.ask('POST', path, { cookie, body: { id: clientId(), ...what } });
    if (status !== 200) throw new Error(`${JSON.stringify(what)} was refused: ${status}`);
  };
  const upload = async (path: string, headers: object): Promise<void> => {
    const { status } = await house.ask('PUT', path, {
      headers: {
        'content-type': 'application/octet-stream',
        'x-file-name': 'leaf.txt',
        ...headers,
      },
      body: Buffer.from('Brown at the tips'),
    });
    if (status !== 200) throw new Error(`${path} was refused: ${status}`);
  };
  const writer = async (which: string) => {
    const panel = await visit(house, door.publicId, which);
    const tell = async (what: { do: 'say' | 'details'; id: string } & object): Promise<void> => {
      panel.tell(what as never);
      await panel.hear('taken', ({ id }) => id === what.id);
    };
    const say = (text: string, fileIds: string[] = []): Promise<void> =>
      tell({
        do: 'say',
        id: clientId(),
        text,
        fileIds,
        page: { url: 'https://quillfern.example/ferns', title: 'Ferns' },
        zone: 'Europe/London',
        consent: 'en',
      } as never);
    return { ...panel, said: tell, say };
  };

  const wren = await writer('wren');
  await wren.say('Is the bench open?');
  const talk = talkOf('waiting');
  await upload(`/door/${door.publicId}/files/leaf-of-wren`, {
    authorization: `Bearer ${visitorToken('wren')}`,
    'x-consent': 'en',
  });
  await wren.say('My fern is brown', ['leaf-of-wren']);
  const clinic = { url: 'https://quillfern.example/clinic', title: 'Clinic' };
  wren.tell({ do: 'page', id: clientId(), page: clinic });
  await wren.said({
    do: 'details',
    id: clientId(),
    name: 'Wren',
    email: 'Wren@Post.EXAMPLE',
    phone: '07700 900123',
    own: [{ id: 'which-plant-1', value: 'A fern' }],
  } as never);
  await upload('/api/files/leaf-of-maren', { cookie });
  await deed(talk, { do: 'read', upTo: stateOf(talk)?.lastSeq });
  await deed(talk, { do: 'say', text: 'Until six', fileIds: ['leaf-of-maren'] });
  const answered = stateOf(talk)?.lastSeq ?? 0;
  wren.tell({ do: 'has', upTo: answered });
  await until(() => (stateOf(talk)?.visitorHasSeq ? true : undefined));
  wren.tell({ do: 'read', upTo: answered });
  await wren.say('Thank you');
  await deed(talk, { do: 'wrap-up' });
  await deed(talk, { do: 'take-back' });
  await deed(talk, { do: 'put-by', until: house.clock.now() + 30 * minute });
  house.clock.advance(30 * minute);
  await house.tick();
  wren.close();
  await until(() => (house.services.hub.visitorsHere().length === 0 ? true : undefined));
  house.clock.advance(minute);
  await house.tick();

  await house.ask('PUT', '/api/lamp', { cookie, body: { state: 'dark', until: null } });
  const robin = await writer('robin');
  await robin.say('Are you in tomorrow?');
  await deed(talkOf('note'), { do: 'put-by', until: house.clock.now() + 600 * minute });
  return { cookie };
};

/** A made-up network that takes everything; only the house that made a file knows it. */
export const snails: DoorKind = {
  kind: 'carrier-snail',
  way: 'snail',
  can: { ...websiteCan, receipts: 'read' },
  send: async ({ outbound }) => ({ networkId: `net ${outbound.key}`, step: 'sent' }),
};

/**
 * What can happen besides since the fifth release: somebody writes by a network and is answered there, two
 * conversations are put together and stay so, two others are parted again.
 */
export const liveTogether = async (house: House, cookie: string): Promise<void> => {
  const doorId = 'snail-door-01';
  house.store.doors.add(
    {
      id: doorId,
      publicId: 'snail-door-public',
      kind: snails.kind,
      name: 'Snails',
      settings: {},
      memberIds: null,
      closedAt: null,
      removedAt: null,
    },
    house.clock.now(),
  );
  const comes = (from: string): Promise<string> => {
    house.clock.advance(minute);
    return house.services.write(() =>
      house.services.receive.inboundNow({
        doorId,
        networkId: `from ${from}`,
        from: `${from}@snails`,
        name: from,
        text: `Words of ${from}`,
        fileIds: [],
        proves: [{ kind: 'email', address: `${from}@post.example` }],
      }),
    );
  };
  const deed = async (id: string, what: object): Promise<void> => {
    house.clock.advance(minute);
    const path = `/api/conversations/${id}/deeds`;
    const { status } = await house.ask('POST', path, { cookie, body: { id: clientId(), ...what } });
    if (status !== 200) throw new Error(`${JSON.stringify(what)} was refused: ${status}`);
  };
  const [finch, plover, siskin, tern] = [
    await comes('finch'),
    await comes('plover'),
    await comes('siskin'),
    await comes('tern'),
  ];
  await deed(finch, { do: 'say', text: 'Yes', fileIds: [] });
  const answer = house.store.entries.allOf(finch).find(({ kind }) => kind === 'team-said');
  const stepOf = () => house.store.deliveries.bySeq(answer?.seq ?? 0)?.step;
  await until(() => (stepOf() === 'sent' ? true : undefined));
  await house.services.write(() =>
    house.services.delivering.reportNow(doorId, {
      networkId: `net deliver ${answer?.seq}`,
      step: 'read',
    }),
  );
  await deed(finch, { do: 'join', other: plover });
  await deed(siskin, { do: 'join', other: tern });
  await deed(siskin, { do: 'part', threadIds: [tern] });
  for (const id of [finch, siskin, tern]) await deed(id, { do: 'wrap-up' });
};

/**
 * What can happen besides since the sixth release: somebody of the team is rung and looks, and an answer by mail is
 * held back. Call it last: from then on devices ring.
 */
export const liveRung = async (house: House, cookie: string, push: PushService): Promise<void> => {
  await house.ask('PUT', '/api/lamp', { cookie, body: { state: 'lit', until: null } });
  await push.addDevice(house, cookie, 'phone-of-maren');
  const [door] = house.store.doors.all();
  const jay = await visit(house, door?.publicId ?? '', 'jay');
  jay.tell({
    do: 'say',
    id: clientId(),
    text: 'Are you in?',
    fileIds: [],
    page: null,
    consent: 'en',
  });
  await jay.hear('taken');
  const rang = () => house.store.entries.since(0, 500).find(({ kind }) => kind === 'rang');
  const { conversationId } = await until(() => rang());
  const talk = house.store.conversations.byId(conversationId);
  if (!talk) throw new Error('nobody waits');
  const read = { do: 'read', id: clientId(), upTo: talk.state.saidSeq };
  await house.ask('POST', `/api/conversations/${talk.id}/deeds`, { cookie, body: read });
  const incoming = { kind: 'own', domain: 'porch.example' } as const;
  house.store.mail.setSettings({ outgoing: null, incoming });
  const [maren] = house.store.members.all();
  const reply = house.services.replyAddresses.make(
    'replies@porch.example',
    talk.id,
    talk.id,
    maren?.id ?? '',
  );
  const mail = `From: Maren <maren@quillfern.example>\r\nAuto-Submitted: auto-replied\r\n\r\nI am away\r\n`;
  await house.services.mailTaking.take(Buffer.from(mail), { from: '', to: [reply?.address ?? ''] });
};

/**
 * What can happen besides since the seventh release: something is owed, changed, done and not done after all; answers
 * go by mail, one from another address is asked about, and no more is wanted. Call it after `liveRung`.
 */
export const liveOwed = async (house: House, cookie: string): Promise<void> => {
  const { services, store, clock } = house;
  const rang = store.entries.since(0, 500).find(({ kind }) => kind === 'rang');
  const talk = store.conversations.byId(rang?.conversationId ?? '');
  const threadId = talk?.threads[0]?.threadId;
  if (!talk || !threadId) throw new Error('nobody was rung for');
  const deed = async (what: object, id = clientId()): Promise<void> => {
    clock.advance(minute);
    const path = `/api/conversations/${talk.id}/deeds`;
    const { status } = await house.ask('POST', path, { cookie, body: { id, ...what } });
    if (status !== 200) throw new Error(`${JSON.stringify(what)} was refused: ${status}`);
  };
  const owed = { what: 'Call', dueAt: clock.now() + 60 * minute, remindAt: null, whose: null };
  const of = clientId();
  await deed({ do: 'owe', ...owed }, of);
  await deed({ do: 'owe-otherwise', of, ...owed, what: 'Call twice' });
  await deed({ do: 'owe-done', of });
  await deed({ do: 'owe-again', of });
  await deed({ do: 'say', text: 'I am', fileIds: [] });
  const note = (happening: Happening): void =>
    services.writeNow(() => {
      const now = store.conversations.byId(talk.id) ?? talk;
      return {
        result: undefined,
        news: [services.record.add(now, null, [{ id: clientId(), happening }])],
      };
    });
  const { seq = 0 } = store.entries.newest() ?? {};
  note({ kind: 'mailed', of: [seq], to: 'jay@post.example' });
  note({ kind: 'turned-soon', until: clock.now() + 30 * minute });
  store.visitorMail.stop('jay@post.example', clock.now());
  note({ kind: 'stopped', isStopped: true, word: 'STOP' });
  note({ kind: 'mail-stopped', address: 'jay@post.example' });
  const reply = services.replyAddresses.makeForVisitor(
    'replies@porch.example',
    threadId,
    'jay@post.example',
  );
  const mail =
    'From: Jay <jay@office.example>\r\nMessage-ID: <1@office.example>\r\n\r\nIt is me\r\n';
  const envelope = { from: 'jay@office.example', to: [reply?.address ?? ''] };
  await services.mailTaking.take(Buffer.from(mail), envelope);
  const asked = store.entries
    .since(0, 500)
    .find((entry) => entry.kind === 'held-back' && entry.says !== undefined);
  await deed({ do: 'own-mail', of: asked?.id, isTheirs: false });
  await deed({ do: 'wrap-up' });
};

/**
 * What can happen besides since the eighth release: somebody writes by a network what they change, and what they take
 * back, and a mail with a subject comes that a robot wrote. Call it after `liveTogether`.
 */
export const liveChanged = async (house: House): Promise<void> => {
  const doorId = 'snail-door-01';
  const from = 'dunlin@snails';
  const { receive, write } = house.services;
  const comes = (networkId: string, more: Partial<Inbound>): Promise<string> =>
    write(() =>
      receive.inboundNow({
        doorId,
        networkId,
        from,
        name: 'Dunlin',
        text: `Words of ${networkId}`,
        fileIds: [],
        proves: [],
        ...more,
      }),
    );
  await comes('first', {});
  await comes('second', {});
  await comes('third', {
    mail: { rest: '', subject: 'Away', pictures: [] },
    setAside: 'automatic',
  });
  const saidAt = house.clock.now() - minute;
  const change = { doorId, from, saidAt };
  await write(() => receive.changedNow({ ...change, networkId: 'first', text: 'Other words' }));
  await write(() => receive.changedNow({ ...change, networkId: 'second', text: null }));
};

/**
 * What can happen besides since the ninth release: a visitor is greeted, taps a card, looks up an order, and is answered
 * by a quick reply with things of the shelf. Call it last.
 */
export const liveAnswered = async (house: House, cookie: string): Promise<void> => {
  const [door] = house.store.doors.all();
  if (!door) throw new Error('there is no door');
  const put = async (path: string, body: object, method: 'PUT' | 'POST' = 'PUT') => {
    const { status, body: answer } = await house.ask(method, path, { cookie, body });
    if (status !== 200) throw new Error(`${path} was refused: ${answer.code} at ${answer.field}`);
    return answer;
  };
  const hello = { ...newGreeting('greeting-0001', 'en'), text: 'Morning.' };
  const { draft, revision } = (await house.ask('GET', `/api/doors/${door.id}/dress`, { cookie }))
    .body;
  draft.asked = {
    cards: [cardOf('card-hours-01')],
    first: [{ id: 'card-hours-01', states: ['lit', 'back-soon', 'dark'] }],
  };
  draft.greetings = [hello];
  const saved = await put(`/api/doors/${door.id}/draft`, { revision, dress: draft });
  await put(`/api/doors/${door.id}/publish`, { revision: saved.revision }, 'POST');
  const table = 'number,email,state\r\nQF-7,siskin@post.example,Packed';
  await house.ask('POST', '/api/orders/table', {
    cookie,
    headers: { 'content-type': 'application/octet-stream' },
    body: Buffer.from(table),
  });
  const ids = ['shelf-item-001', 'shelf-slots-01'];
  const things = [
    { ...newThing('item'), name: 'Fern', price: '14.50', currency: 'GBP', stock: 'in' },
    { ...newThing('slots'), name: 'Repotting', starts: [house.clock.now() + 3_600 * minute] },
  ];
  for (const [at, thing] of things.entries()) {
    await put(`/api/shelf/${ids[at]}`, { revision: 0, thing, fileId: null });
  }
  const stored = { isOwn: false, title: 'Fern', code: 'fern', text: 'Here, {first name|there}:' };
  await put('/api/quick-replies/reply-fern-0001', {
    ...{ revision: 0, ...stored, group: '', language: 'en', fileIds: [], shelfIds: ids },
  });
  const siskin = await visit(house, door.publicId, 'siskin');
  const tell = async (what: object): Promise<void> => {
    house.clock.advance(minute);
    const id = clientId();
    siskin.tell({ id, page: null, consent: 'en', ...what } as never);
    await siskin.hear('taken', (told) => told.id === id);
  };
  await tell({ do: 'tap', card: 'card-hours-01', greeted: hello.id });
  await tell({ do: 'order', number: 'QF-7', contact: 'siskin@post.example' });
  await tell({ do: 'say', text: 'Ferns?', fileIds: [] });
  const writer = { doorId: door.id, tokenHash: hashSecret(visitorToken('siskin')) };
  const talk = house.services.visiting.stateOf(writer)?.threadId ?? '';
  await put(
    `/api/conversations/${talk}/deeds`,
    {
      ...{ do: 'say', id: clientId(), text: 'Here, there:', fileIds: [], shelf: ids },
      picked: { kind: 'reply', id: 'reply-fern-0001' },
    },
    'POST',
  );
};
