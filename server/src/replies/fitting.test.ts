import { setImmediate } from 'node:timers/promises';
import { REPLY_TITLE_LONGEST } from '@porch/core/replies';
import { type House, openHouse, setUp } from '../../test-kit/house';
import { clientId, visit } from '../../test-kit/panel';
import { addHelper } from '../../test-kit/routes';
import { ANSWERS_KEPT_MOST, PICKS_KEPT_MOST } from '../store/answers-given';

const minute = 60_000;

describe('what fits what somebody has said', () => {
  let house: House;
  let cookie: string;
  let door: string;
  let helper: string;
  beforeEach(async () => {
    house = await openHouse();
    const setup = await setUp(house);
    cookie = setup.cookie;
    door = setup.door.publicId;
    helper = await addHelper(house);
    const few = [
      'Where do you grow them?',
      'I like your blue pots',
      'A lovely day it was',
      'See you',
    ];
    for (const [at, text] of few.entries()) {
      const visitor = await visit(house, door, `passer-${at}`);
      await visitor.say(text);
    }
  });
  afterEach(() => house.close());

  const stores = async (title: string, text: string, change: object = {}, by = cookie) => {
    const id = clientId();
    const rest = { revision: 0, isOwn: false, code: '', group: '', language: 'en', fileIds: [] };
    await house.ask('PUT', `/api/quick-replies/${id}`, {
      cookie: by,
      body: { ...rest, title, text, ...change },
    });
    return id;
  };
  let visitors = 0;
  /** The conversation in which somebody new says something. */
  const asks = async (...texts: string[]) => {
    visitors += 1;
    const visitor = await visit(house, door, `asker-${visitors}`);
    const before = house.store.entries.newestSeq();
    for (const text of texts) await visitor.say(text);
    const said = house.store.entries.since(before, 50).find(({ kind }) => kind === 'visitor-said');
    return said?.conversationId ?? '';
  };
  const fitsIn = async (conversationId: string, by = cookie) =>
    (await house.ask('GET', `/api/conversations/${conversationId}/fits`, { cookie: by })).body.fits;
  /** What was learned counts once it has been read; nobody waits for that. */
  const learned = async (conversationId: string) => {
    await fitsIn(conversationId);
    for (let turn = 0; turn < 100; turn += 1) await setImmediate();
    return fitsIn(conversationId);
  };
  const answer = (conversationId: string, text: string, picked?: object) =>
    house.ask('POST', `/api/conversations/${conversationId}/deeds`, {
      cookie,
      body: { do: 'say', id: clientId(), text, fileIds: [], picked },
    });

  it('is up to three of the team’s own texts, with the words that both have', async () => {
    const id = await stores('How far we deliver', 'Our van delivers within ten miles.');
    await stores('When we are open', 'From nine to five.');
    const talk = await asks('Hello!', 'Would you deliver to Hartwell with your van?');
    const [first, ...others] = await fitsIn(talk);
    expect(first).toMatchObject({ kind: 'reply', id, title: 'How far we deliver' });
    expect(first.words).toEqual(['deliver', 'van', 'delivers']);
    expect(others).toEqual([]);
    for (const more of ['Delivery by van', 'Van deliveries', 'The van that delivers']) {
      await stores(more, 'Deliver, van');
    }
    expect(await fitsIn(talk)).toHaveLength(3);
  });

  it('is nothing where none fits, and once they were answered', async () => {
    await stores('How far we deliver', 'Our van delivers within ten miles.');
    const talk = await asks('Who painted the wall behind the counter?');
    expect(await fitsIn(talk)).toEqual([]);
    await stores('Greeting', 'Hi {first name}, {order number?}');
    expect(await fitsIn(await asks('My first name and number?'))).toEqual([]);
    const other = await asks('Do you deliver by van?');
    expect(await fitsIn(other)).toHaveLength(1);
    await answer(other, 'Yes');
    expect(await fitsIn(other)).toEqual([]);
  });

  it('is nothing for whoever sells something, whatever words they use', async () => {
    await stores('Gift vouchers', 'Gift vouchers are valid for three years.');
    expect(await fitsIn(await asks('Do you sell gift vouchers?'))).toHaveLength(1);
    expect(await fitsIn(await asks('Claim your gift voucher now, click the link'))).toEqual([]);
  });

  it('is never another’s own, and at once what somebody has just written', async () => {
    const talk = await asks('Is there parking for a trailer?');
    expect(await fitsIn(talk)).toEqual([]);
    await stores('Parking a trailer', 'In the yard.', { isOwn: true }, helper);
    expect(await fitsIn(talk)).toEqual([]);
    expect(await fitsIn(talk, helper)).toHaveLength(1);
    const shared = await stores('Trailers and parking', 'Behind the shop.');
    expect((await fitsIn(talk)).map(({ id }: { id: string }) => id)).toEqual([shared]);
  });

  it('is an answer that was given to a like question, without what concerned one person', async () => {
    const first = await asks('Do you sell terracotta saucers?');
    await answer(first, 'We do, order QF-1020 had two of them. Maren Oduya');
    house.clock.advance(minute);
    const talk = await asks('have you got saucers in terracotta');
    const [fit] = await learned(talk);
    expect(fit).toMatchObject({
      kind: 'answer',
      text: 'We do, order {order number?} had two of them. {my name}',
    });
    expect(fit.title.length).toBeLessThanOrEqual(REPLY_TITLE_LONGEST);
    // Given again it is one answer still, and not one of its own.
    await answer(talk, 'We do', { kind: 'answer', id: fit.id });
    expect(house.store.answersGiven.newest()).toHaveLength(1);
  });

  it('learns from what was picked: after that a like question finds it', async () => {
    const id = await stores('Room for cars', 'In the yard.');
    const first = await asks('Can I park my motorbike somewhere near you?');
    expect(await fitsIn(first)).toEqual([]);
    await answer(first, 'In the yard.', { kind: 'reply', id });
    house.clock.advance(minute);
    const second = await asks('where can a motorbike park');
    expect(await learned(second)).toMatchObject([{ id }]);
  });

  it('learns nothing of what is not there any more', async () => {
    for (const picked of [
      { kind: 'reply', id: 'no-such-reply-1' },
      { kind: 'answer', id: 'answer-000000009999' },
      { kind: 'card', id: 'no-such-card-01' },
    ]) {
      const talk = await asks('Do you sell terracotta saucers?');
      expect((await answer(talk, 'We do, in three sizes.', picked)).status).toBe(200);
      expect(house.store.answersGiven.picksOf(picked.kind, picked.id)).toEqual([]);
    }
  });

  it('is learned from so many of the newest only', () => {
    const { answersGiven } = house.store;
    for (let seq = 1; seq <= PICKS_KEPT_MOST + 5; seq += 1) {
      answersGiven.addPick({ kind: 'reply', id: 'r', question: `q${seq}` }, seq);
    }
    const questions = answersGiven.picksOf('reply', 'r').map(({ question }) => question);
    expect(questions).toHaveLength(PICKS_KEPT_MOST);
    expect(questions).not.toContain('q5');
    for (let seq = 1; seq <= ANSWERS_KEPT_MOST + 5; seq += 1) {
      answersGiven.add({ seq, question: 'q', text: `answer ${seq}`, language: 'en' });
    }
    expect(answersGiven.newest()).toHaveLength(ANSWERS_KEPT_MOST);
    expect(answersGiven.bySeq(5)).toBeNull();
    expect(answersGiven.bySeq(6)).not.toBeNull();
  });

  it('is asked of conversations that there are', async () => {
    const { status } = await house.ask('GET', '/api/conversations/nobody-there-1/fits', { cookie });
    expect(status).toBe(404);
  });
});
