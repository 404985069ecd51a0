import { segmentsOf } from '@porch/core/segments';
import { type NetworkHouse, openNetworkHouse } from '../../../test-kit/network-house';
import { networkOf } from '../../../test-kit/networks';
import { openDevice } from '../../../test-kit/panel';
import { stopsBy } from './wire';

describe('a word that stops texts', () => {
  // Common practice of text gateways.
  it.each(['STOP', 'stop', ' Stop. ', 'StopAll', 'UNSUBSCRIBE', 'cancel', 'End', 'quit!'])(
    '%s stands alone',
    (text) => expect(stopsBy(text)).toBe(true),
  );
  it.each(['START', 'unstop'])('%s lets them come again', (text) =>
    expect(stopsBy(text)).toBe(false),
  );
  it.each(['Please stop sending the van', 'stop it', '', 'Yes', 'Where does the bus stop?'])(
    'is not in “%s”',
    (text) => expect(stopsBy(text)).toBeNull(),
  );
});

describe('text messages', () => {
  let here: NetworkHouse;
  beforeEach(async () => {
    here = await openNetworkHouse(networkOf('text'));
  });
  afterEach(() => here.house.close());
  const text = (id: string, words: string) => here.hand({ what: 'said', id, text: words });
  const row = () => here.house.store.conversations.byId(here.talk());

  it('stop at once when somebody says so, and come again when they say that', async () => {
    await here.says('a');
    await text('b', 'STOP');
    await text('b', 'STOP');
    expect(here.roll('stopped')).toMatchObject([{ isStopped: true, word: 'STOP' }]);
    // Nobody stands in the line who wants no answer.
    expect(row()?.state.waitingSince).toBeNull();
    expect((await here.answer()).body.code).toBe('person-stopped');
    expect(here.far.carried()).toEqual([]);
    await text('c', 'Start');
    expect((await here.answer()).status).toBe(200);
  });

  it('are stopped for somebody who has never written', async () => {
    await text('a', 'stop');
    expect(here.roll('stopped')).toHaveLength(1);
    await here.says('b');
    // What they write after it is heard; whether they want an answer is theirs to say.
    expect((await here.answer()).body.code).toBe('person-stopped');
  });

  it('are refused before they are sent where they would be more than ten', async () => {
    await here.says('a');
    const dear = 'ж'.repeat(67 * 10 + 1);
    expect(segmentsOf(dear).count).toBe(11);
    expect((await here.answer(dear)).body).toMatchObject({ code: 'too-many-segments', limit: 10 });
    expect((await here.answer(dear.slice(1))).status).toBe(200);
  });

  it('of one number are one person, also at another door, and one row on every device', async () => {
    await here.says('a');
    const { kind, given, prove } = networkOf('text');
    const { body } = await here.doors('POST', '', { kind, name: 'Other', given });
    const device = await openDevice(here.house, here.cookie, here.house.store.entries.newestSeq());
    const form = { event: 'text', id: 'b', from: '+447700900123', text: 'Me again', at: '1' };
    const words = new URLSearchParams(form).toString();
    const headers = prove(words, body.shows.word, here.house.clock.now());
    const { pathname } = new URL(body.shows.address);
    expect((await here.house.ask('POST', pathname, { body: words, headers })).status).toBe(204);
    const [first, second] = here.roll('visitor-said');
    const standing = here.house.services.persons.standing(second?.threadId ?? '');
    expect(standing?.id).toBe(first?.conversationId);
    expect(standing?.state.phone).toBe('+447700900123');
    // Where they were for a moment alone is no row of the line any more.
    const { rows } = await device.hear('entries');
    expect(rows.map(({ id }) => id)).toEqual([first?.conversationId]);
  });
});
