import { type Card, type Cards, withCard, withStates } from '@porch/core/cards';
import type { Dress } from '@porch/core/dress';
import { cardOf } from '@porch/core/test-kit/cards';
import { dressingOf } from '../../../test-kit/dresses';
import { becomes, type NetworkHouse, openNetworkHouse } from '../../../test-kit/network-house';
import { networkOf } from '../../../test-kit/networks';

const minute = 60_000;
const hour = 60 * minute;

describe('a listing', () => {
  let here: NetworkHouse;
  const shows = (change: Partial<typeof here.far.listing>): Promise<true> =>
    becomes(() =>
      Object.entries(change).every(([field, value]) => here.far.listing[field as 'chat'] === value),
    );
  const lamp = (state: string, until: number | null = null) =>
    here.house.ask('PUT', '/api/lamp', { cookie: here.cookie, body: { state, until } });
  const light = () => here.house.services.lamp.forTeam();
  const settled = (): Promise<true> =>
    becomes(() =>
      ['', ' then'].every((more) => !here.house.store.jobs.byKey(`listing ${here.doorId}${more}`)),
    );
  const kept = async () => {
    await settled();
    return (await here.doors('GET', `/${here.doorId}`)).body.listing;
  };
  /** Its owner changes it there, and the network says so. */
  const changeThere = async (change: Partial<typeof here.far.listing>): Promise<void> => {
    Object.assign(here.far.listing, change);
    await here.handBody('{"kind":"changed"}');
  };
  const ahead = (ms: number): number => here.house.clock.now() + ms;

  beforeEach(async () => {
    here = await openNetworkHouse(networkOf('townfinder'));
    // As soon as it is there it says what the light does.
    await shows({ chat: true, away_until: null });
    await settled();
  });
  afterEach(() => here.house.close());

  it('says what the light shows, as soon as that is another', async () => {
    await lamp('back-soon', ahead(hour));
    await shows({ chat: true, away_until: new Date(ahead(hour)).toISOString() });
    await lamp('dark');
    await shows({ chat: false });
    await lamp('lit');
    await shows({ chat: true, away_until: null });
    expect(await kept()).toMatchObject({ agreed: { isOn: true, awayUntil: null } });
  });

  it('is followed by the light where its owner has changed it there', async () => {
    const until = ahead(hour);
    await changeThere({ away_until: new Date(until).toISOString() });
    await becomes(() => light().state === 'back-soon');
    expect(light().until).toBe(until);
    await changeThere({ chat: false, away_until: null });
    await becomes(() => light().state === 'dark');
    await changeThere({ chat: true });
    await becomes(() => light().state === 'lit');
    await settled();
    expect(await kept()).toMatchObject({ differed: ['chat'], theirs: { isOn: true } });
  });

  it('that says nothing of a change is found out all the same', async () => {
    here.far.listing.chat = false;
    here.house.clock.advance(11 * minute);
    await here.house.tick();
    await becomes(() => light().state === 'dark');
  });

  it('comes back by itself when the time is over that it was away for', async () => {
    await changeThere({ away_until: new Date(ahead(hour)).toISOString() });
    await becomes(() => light().state === 'back-soon');
    here.house.clock.advance(hour + minute);
    await here.house.tick();
    expect(light().state).toBe('lit');
    await settled();
    expect(light().state).toBe('lit');
  });

  it('is handed the opening hours, and other ones there are said to have differed', async () => {
    const span = [{ from: 9 * 60, to: 17 * 60 }];
    const week = [span, span, span, span, span, [], []];
    await here.house.ask('PUT', '/api/hours', {
      cookie: here.cookie,
      body: { hours: { week, holidays: null, spells: [] } },
    });
    await shows({ opening_hours: 'Mo-Fr 09:00-17:00' });
    here.far.listing.opening_hours = 'Mo-Su 00:00-24:00';
    await here.handBody('{"kind":"changed"}');
    await shows({ opening_hours: 'Mo-Fr 09:00-17:00' });
    await settled();
    expect(await kept()).toMatchObject({
      differed: ['hours'],
      theirs: { hours: 'Mo-Su 00:00-24:00' },
    });
  });

  it('that cannot be reached is told later, and the door is said to fail meanwhile', async () => {
    here.far.next.push({ status: 500 });
    await lamp('dark');
    await becomes(() => here.house.store.doors.health(here.doorId).why === 'network-broken');
    here.house.clock.advance(10_000);
    await here.house.tick();
    await shows({ chat: false });
    await becomes(() => here.house.store.doors.health(here.doorId).why === null);
  });

  it('is left alone once its door is closed', async () => {
    await here.house.ask('PUT', `/api/doors/${here.doorId}`, {
      cookie: here.cookie,
      body: { isClosed: true },
    });
    await lamp('dark');
    await here.house.tick();
    expect(here.far.listing.chat).toBe(true);
  });
});

describe('the questions of a listing', () => {
  let here: NetworkHouse;
  let website: string;

  const cards = (): Cards => here.house.services.dressing.published(website).asked;
  const said = () => cards().cards.map(({ question, answer }) => [question, answer]);
  const there = () => here.far.questions.map(({ question, answer }) => [question, answer]);
  const dressing = () => dressingOf(here.house, here.cookie, website);
  type Alter = (asked: Cards) => Cards;
  const asked = (alter: Alter) => (dress: Dress) => ({ ...dress, asked: alter(dress.asked) });
  const draft = (alter: Alter) => dressing().save(asked(alter));
  const publish = (alter: Alter) => dressing().publish(asked(alter));
  const put = (card: Card) => (asked: Cards) =>
    withStates(withCard(asked, card), card.id, ['lit', 'back-soon', 'dark']);
  const parking = cardOf('card-parking-1', { question: 'Parking?', answer: 'In the yard.' });
  const changedThere = async (work: () => void): Promise<void> => {
    work();
    await here.handBody('{"kind":"changed"}');
    await settled();
  };
  const settled = (): Promise<true> =>
    becomes(() =>
      ['', ' then'].every((more) => !here.house.store.jobs.byKey(`listing ${here.doorId}${more}`)),
    );
  const shown = async () =>
    (await here.doors('GET', `/${here.doorId}`)).body.listing?.questions ?? null;

  beforeEach(async () => {
    here = await openNetworkHouse(networkOf('townfinder'));
    website = here.house.store.doors.all().find(({ kind }) => kind === 'website')?.id ?? '';
    await becomes(() => here.house.store.doors.byId(here.doorId)?.settings.questions !== undefined);
    await publish(put(parking));
    await becomes(() => here.far.questions.length === 1);
    await settled();
  });
  afterEach(() => here.house.close());

  it('are the cards that are published, and nothing of a draft', async () => {
    expect(there()).toEqual([['Parking?', 'In the yard.']]);
    await draft(put(cardOf('card-drafted-1')));
    here.house.clock.advance(11 * minute);
    await here.house.tick();
    await settled();
    expect(there()).toEqual([['Parking?', 'In the yard.']]);
    expect(await shown()).toMatchObject({ sameCount: 1, followed: null, problem: null });
  });

  it('become cards, are changed with them, and what was drafted meanwhile stays', async () => {
    await draft(put(cardOf('card-drafted-1')));
    await changedThere(() => {
      here.far.questions[0] = { id: parking.id, question: 'Parking?', answer: 'In the lane.' };
      here.far.questions.push({ id: 'tfq-1', question: ' Dogs? ', answer: 'On a lead.' });
    });
    await becomes(() => cards().cards.length === 2);
    expect(said()).toEqual([
      ['Parking?', 'In the lane.'],
      ['Dogs?', 'On a lead.'],
    ]);
    expect(cards().first).toHaveLength(2);
    const { draft: kept, version, canUndo } = await dressing().look();
    expect(kept.asked.cards.map(({ question }: Card) => question)).toEqual([
      'Parking?',
      'Question card-drafted-1',
      'Dogs?',
    ]);
    expect([version, canUndo]).toEqual([3, true]);
    await settled();
    expect(await shown()).toMatchObject({ sameCount: 2, followed: { count: 2 } });
  });

  it('go back where publishing is taken back', async () => {
    await changedThere(() => {
      here.far.questions[0] = { id: parking.id, question: 'Parking?', answer: 'In the lane.' };
    });
    await becomes(() => said()[0]?.[1] === 'In the lane.');
    await dressing().undo();
    await becomes(() => there()[0]?.[1] === 'In the yard.');
  });

  it('tell whoever is dressing the door that it was changed meanwhile', async () => {
    const { draft: dress, revision } = await dressing().look();
    await changedThere(() => {
      here.far.questions.push({ id: 'tfq-1', question: 'Dogs?', answer: 'On a lead.' });
    });
    await becomes(() => cards().cards.length === 2);
    const { status } = await here.house.ask('PUT', `/api/doors/${website}/draft`, {
      cookie: here.cookie,
      body: { dress, revision },
    });
    expect(status).toBe(409);
  });

  it('that find no room any more, once they were compared, are not taken away there', async () => {
    const nine = Array.from({ length: 9 }, (_none, at) => cardOf(`card-nine-${at}-0001`));
    const { asked: calls } = here.far;
    // While the listing answers its owner fills the door.
    here.far.whileAsked = () => {
      if (!calls.at(-1)?.address.endsWith('/questions') || cards().cards.length > 1) return;
      const { dressing: dress } = here.house.services;
      dress.changeAsked(website, (all) => nine.reduce((now, card) => put(card)(now), all));
    };
    await changedThere(() => {
      here.far.questions.push({ id: 'tfq-1', question: 'Dogs?', answer: 'On a lead.' });
    });
    expect(cards().cards).toHaveLength(10);
    here.house.clock.advance(11 * minute);
    await here.house.tick();
    const noted = () => here.house.store.doors.byId(here.doorId)?.settings.questions;
    await becomes(() => (noted() as { agreed: object[] }).agreed.length === 10);
    expect(there()).toHaveLength(11);
    expect(there().at(-1)).toEqual(['Dogs?', 'On a lead.']);
    expect(await shown()).toMatchObject({ sameCount: 10, notTaken: ['Dogs?'] });
  });

  it('that are taken away there are shown first no more, and their cards stay', async () => {
    await changedThere(() => {
      here.far.questions.length = 0;
    });
    await becomes(() => cards().first.length === 0);
    expect(said()).toEqual([['Parking?', 'In the yard.']]);
    await settled();
    expect(there()).toEqual([]);
  });

  it('that can be no card stay there, and are told', async () => {
    const long = 'x'.repeat(81);
    await changedThere(() => {
      here.far.questions.push({ id: 'tfq-1', question: long, answer: 'Yes.' });
    });
    await publish(put(cardOf('card-long-0001', { question: 'Long', answer: 'y'.repeat(1_001) })));
    await settled();
    expect(there()).toEqual([
      ['Parking?', 'In the yard.'],
      [long, 'Yes.'],
    ]);
    expect(await shown()).toMatchObject({ notTaken: [long], tooLong: ['Long'], sameCount: 1 });
  });

  it('that were changed on both sides are what the card says, and theirs is told', async () => {
    here.far.questions[0] = { id: parking.id, question: 'Parking?', answer: 'None.' };
    await publish(put({ ...parking, answer: 'In the lane.' }));
    await becomes(() => there()[0]?.[1] === 'In the lane.');
    await settled();
    expect(await shown()).toMatchObject({ outvoted: [{ question: 'Parking?', answer: 'None.' }] });
  });

  it('that nobody can ask for leave the light as it is kept, and are tried again', async () => {
    const isAsked = here.far.whileAsked;
    const { asked, next } = here.far;
    here.far.whileAsked = () => {
      if (asked.at(-1)?.address.endsWith('/questions')) next.push({ status: 500 });
    };
    await changedThere(() => {
      here.far.listing.chat = false;
      here.far.questions.push({ id: 'tfq-1', question: 'Dogs?', answer: 'On a lead.' });
    });
    await becomes(() => here.house.services.lamp.forTeam().state === 'dark');
    await settled();
    expect(await shown()).toMatchObject({ problem: 'network-broken', sameCount: 1 });
    here.far.whileAsked = isAsked;
    here.house.clock.advance(2 * minute);
    await here.house.tick();
    await becomes(() => cards().cards.length === 2);
    await settled();
    expect(await shown()).toMatchObject({ problem: null, sameCount: 2 });
  });

  it('are left alone while the website door is closed, and on with it once it is open', async () => {
    const made = await here.house.ask('POST', '/api/doors', {
      cookie: here.cookie,
      body: { name: 'Another', language: 'en' },
    });
    expect(made.status).toBe(200);
    const close = (isClosed: boolean) =>
      here.house.ask('PUT', `/api/doors/${website}`, { cookie: here.cookie, body: { isClosed } });
    await close(true);
    await changedThere(() => {
      here.far.questions.push({ id: 'tfq-1', question: 'Dogs?', answer: 'On a lead.' });
    });
    expect(there()).toHaveLength(2);
    expect(said()).toHaveLength(1);
    const { store, services } = here.house;
    const another = store.doors.all().find(({ name }) => name === 'Another')?.id ?? '';
    expect(services.dressing.published(another).asked.cards).toEqual([]);
    await close(false);
    await becomes(() => cards().cards.length === 2);
  });
});
