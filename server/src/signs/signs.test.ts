import { type Dress, plainDress, SUBJECT } from '@porch/core/dress';
import { dressingOf, openTrial } from '../../test-kit/dresses';
import { type House, openHouse, setUp, site } from '../../test-kit/house';
import { clientId, visit } from '../../test-kit/panel';

const day = [{ from: 540, to: 1_050 }];
const plain = { week: [day, day, day, day, day, [], []], holidays: null, spells: [] };

/** November 2026 in London, on whose 12th, a Thursday, the house's clock stands at 10:00. */
const november = (date: number, atHour: number): number => Date.UTC(2026, 10, date, atHour);

describe('what a door says while nobody is in', () => {
  let house: House;
  let cookie: string;
  let door: { id: string; publicId: string };
  beforeEach(async () => {
    house = await openHouse();
    ({ cookie, door } = await setUp(house));
    await house.ask('PUT', '/api/hours', { cookie, body: { hours: plain } });
  });
  afterEach(() => house.close());

  const goTo = async (at: number): Promise<void> => {
    house.clock.advance(at - house.clock.now());
    await house.tick();
  };
  const dressing = () => dressingOf(house, cookie, door.id);
  const dressed = (change: (dress: Dress) => void) => (): Dress => {
    const dress = plainDress();
    change(dress);
    return dress;
  };
  const publish = (change: (dress: Dress) => void) => dressing().publish(dressed(change));
  const signs = () =>
    house.store.entries
      .since(0, 500)
      .flatMap((entry) => (entry.kind === 'door-sign' ? [entry] : []));

  it('is one message a conversation and closed spell, with the time at which somebody is back', async () => {
    await goTo(november(12, 22));
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('Two bonsai, please');
    const heard = await panel.hear('entries', ({ entries }) =>
      entries.some(({ by }) => by === 'door'),
    );
    expect(heard.entries.find(({ by }) => by === 'door')?.text).toBe(
      'Thank you, we have it. We answer when we are back: Friday 09:00, in 11 hours.',
    );
    await panel.say('And a fern');
    await (await visit(house, door.publicId, 'robin')).say('Me too');
    expect(signs()).toHaveLength(2);
    // It is another spell the evening after, and the same one after a restart.
    await goTo(november(13, 12));
    await goTo(november(13, 22));
    await (await visit(house, door.publicId, 'wren')).say('Still there?');
    expect(signs()).toHaveLength(3);
  });

  it('is nothing while the light is lit', async () => {
    await (await visit(house, door.publicId, 'wren')).say('Hello');
    expect(signs()).toEqual([]);
  });

  it('speaks the visitor’s language, by their clock, in the owner’s words', async () => {
    await publish((dress) => {
      dress.texts = { de: { signUntil: 'Wir sind {time} da.' } };
    });
    await goTo(november(12, 22));
    const panel = await visit(house, door.publicId, 'wren');
    panel.tell({
      do: 'say',
      id: clientId(),
      text: 'Hallo',
      fileIds: [],
      page: null,
      zone: 'Asia/Kathmandu',
      language: 'de',
    });
    await panel.hear('taken');
    expect(signs()[0]?.text).toBe('Wir sind 14:45 da.');
  });

  it('says no time where nobody knows one', async () => {
    await house.ask('PUT', '/api/lamp', { cookie, body: { state: 'dark', until: null } });
    await (await visit(house, door.publicId, 'wren')).say('Hello');
    expect(signs()).toMatchObject([
      { text: 'Thank you, we have it. We answer when we are back.', until: null },
    ]);
  });

  it('says when it is open to visitors of a door that says no more than that', async () => {
    await publish((dress) => {
      dress.whenNotLit = 'hours';
    });
    const panel = await visit(house, door.publicId, 'wren');
    expect(panel.welcome.opens.slice(0, 2)).toEqual([
      [november(12, 10), Date.UTC(2026, 10, 12, 17, 30)],
      [november(13, 9), Date.UTC(2026, 10, 13, 17, 30)],
    ]);
    await house.ask('PUT', '/api/hours', {
      cookie,
      body: { hours: { ...plain, week: [[], [], [], [], [], [], []] } },
    });
    expect((await panel.hear('lamp')).opens).toEqual([]);
  });

  it('keeps what a note is about as an answer of the guest book', async () => {
    await publish((dress) => {
      dress.guestBook.notLit.asks = [{ field: SUBJECT, isRequired: true }];
    });
    await goTo(november(12, 22));
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('Two bonsai, please');
    panel.tell({ do: 'details', id: clientId(), own: [{ id: SUBJECT, value: 'Bonsai' }] });
    await panel.hear('taken');
    const [note] = house.store.conversations.page('note', null, 1);
    expect(note?.state.own).toEqual([{ id: SUBJECT, label: 'Subject', value: 'Bonsai' }]);
  });

  describe('as the first hello', () => {
    const hello = { isOn: true, days: [], from: 0, to: 0 };
    const hour = 3_600_000;

    it('acknowledges a first message once a visit, while somebody is in', async () => {
      await publish((dress) => {
        dress.hello = hello;
        dress.texts = { en: { hello: 'We have it, one moment.' } };
      });
      const panel = await visit(house, door.publicId, 'wren');
      await panel.say('Do you have ferns?');
      const heard = await panel.hear('entries', ({ entries }) =>
        entries.some(({ by }) => by === 'door'),
      );
      expect(heard.entries.find(({ by }) => by === 'door')?.text).toBe('We have it, one moment.');
      await panel.say('Two of them');
      expect(signs()).toMatchObject([{ isHello: true, until: null }]);
      // Whoever waits for an answer waits for it all the same.
      const { rows } = (await house.ask('GET', '/api/line?group=waiting', { cookie })).body;
      expect(rows).toHaveLength(1);
      house.clock.advance(24 * hour);
      await house.tick();
      await (await visit(house, door.publicId, 'wren')).say('Me again');
      expect(signs()).toHaveLength(2);
    });

    it('is said by a draft to whoever tries it, and to nobody else', async () => {
      await dressing().save(
        dressed((dress) => {
          dress.hello = hello;
          dress.texts = { en: { hello: 'Trying this one.' } };
        }),
      );
      const says = async (who: string, isTrial: boolean): Promise<void> => {
        const panel = await visit(house, door.publicId, who);
        const id = clientId();
        panel.tell({ do: 'say', id, text: 'Hello', fileIds: [], page: null, isTrial });
        await panel.hear('taken', (told) => told.id === id);
      };
      await says('eve', true);
      await openTrial(house, cookie, door, site);
      await says('maren', true);
      await says('wren', false);
      expect(signs()).toMatchObject([{ text: 'Trying this one.', isHello: true, isTried: true }]);
    });

    it('is said once however far somebody walks before they write again', async () => {
      await publish((dress) => {
        dress.hello = hello;
      });
      const panel = await visit(house, door.publicId, 'wren');
      await panel.say('Do you have ferns?');
      for (let page = 0; page < 30; page += 1) {
        panel.tell({
          do: 'page',
          id: clientId(),
          page: { url: `https://quillfern.example/${page}`, title: `Page ${page}` },
        });
      }
      await panel.say('Two of them');
      expect(
        house.store.entries.since(0, 500).filter(({ kind }) => kind === 'waypoint').length,
      ).toBeGreaterThan(20);
      expect(signs()).toHaveLength(1);
    });

    it('is not said where it is off, at another time, or while nobody is in', async () => {
      await (await visit(house, door.publicId, 'wren')).say('Hello');
      await publish((dress) => {
        dress.hello = { ...hello, from: 11 * 60, to: 12 * 60 };
      });
      await (await visit(house, door.publicId, 'robin')).say('Hello');
      expect(signs()).toEqual([]);
      await goTo(november(12, 11));
      await (await visit(house, door.publicId, 'jay')).say('Hello');
      expect(signs()).toHaveLength(1);
      await goTo(november(12, 22));
      await (await visit(house, door.publicId, 'finch')).say('Hello');
      expect(signs().map(({ isHello = false }) => isHello)).toEqual([true, false]);
    });
  });
});
