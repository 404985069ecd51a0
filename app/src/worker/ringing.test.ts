import type { Call } from '@porch/core/calling';
import { alertDeeds, type Cause, causes, type PushLoad, type RingLoad } from '@porch/core/ringing';
import { alertFor } from './alerts';
import { type DeedRequest, requestFor } from './deeds';
import { createRinging, type Means } from './ringing';

const now = Date.UTC(2026, 10, 12, 10, 0);
const ringLoad = (change: Partial<RingLoad> = {}): RingLoad => ({
  say: 'ring',
  ring: 'ring-00001',
  cause: 'first',
  talk: 'talk-00001',
  whom: 'thread-0001',
  to: 'member-0001',
  called: { by: 'name', what: 'Wren' },
  door: '',
  words: 'Is the bench open?',
  unread: 1,
  picture: null,
  waiting: 3,
  buttons: ['open', 'put-by'],
  shortReply: '',
  sound: 'two-notes',
  vibrates: true,
  ...change,
});

/** A browser that shows, asks and opens what it is told to, and keeps it. */
const openBrowser = (change: Partial<Means> = {}) => {
  let alerts: { title: string; options: NotificationOptions; close: () => void }[] = [];
  const asked: DeedRequest[] = [];
  const kept: DeedRequest[] = [];
  const opened: string[] = [];
  const badges: number[] = [];
  const ringing = createRinging({
    windows: async () => [],
    openWindow: async (path) => opened.push(path),
    show: async (title, options) => {
      alerts = alerts.filter((one) => one.options.tag !== options.tag);
      const alert = {
        title,
        options,
        close: () => {
          alerts = alerts.filter((one) => one !== alert);
        },
      };
      alerts.push(alert);
    },
    shown: async (tag) => alerts.filter(({ options }) => options.tag === tag),
    badge: (waiting) => badges.push(waiting),
    mustShow: false,
    pictures: async () => ({}),
    wait: () => new Promise(() => undefined),
    deviceId: async () => 'device-0001',
    ask: async (request) => {
      asked.push(request);
      return 204;
    },
    later: async (request) => {
      kept.push(request);
    },
    now: () => now,
    houseNow: async () => now + 5,
    ...change,
  });
  const data = {
    ring: 'ring-00001',
    talk: 'talk-00001',
    whom: 'thread-0001',
    shortReply: 'In a moment',
  };
  return {
    ringing,
    data,
    titles: () => alerts.map(({ title }) => title),
    alerts: () => alerts,
    asked,
    kept,
    opened,
    badges,
  };
};

describe('an alert', () => {
  it.each<[Partial<RingLoad>, string, string]>([
    [{}, 'Wren', 'Is the bench open?'],
    [{ door: 'Bench' }, 'Wren · Bench', 'Is the bench open?'],
    [{ called: { by: 'nothing' } as Call }, 'Visitor', 'Is the bench open?'],
    [{ called: { by: 'page', what: 'Ferns' } }, 'Visitor on Ferns', 'Is the bench open?'],
    [{ words: '' }, 'Wren', 'Wrote to you. Open it to read.'],
    [{ unread: 3 }, 'Wren', 'Is the bench open?\n3 unread messages'],
    [{ cause: 'again' }, 'Wren', 'Is the bench open?\nNobody has looked yet.'],
    [{ cause: 'landed', talk: null, words: '' }, 'Wren', 'Is on a page that you chose.'],
    [{ cause: 'back', words: '' }, 'Wren', 'Is back on your website.'],
  ])('%j says who and what', (change, title, body) => {
    const alert = alertFor(ringLoad(change), now);
    expect([alert?.title, alert?.options.body]).toEqual([title, body]);
  });

  it('says something for every cause', () => {
    for (const cause of causes as readonly Cause[]) {
      expect(alertFor(ringLoad({ cause }), now)?.options.body).toMatch(/\S/);
    }
  });

  it('has the buttons that were chosen, each once, and none that means nothing there', () => {
    const actions = (change: Partial<RingLoad>) =>
      alertFor(ringLoad(change), now)?.options.actions?.map(({ title }) => title);
    expect(actions({ buttons: ['short-reply', 'put-by'], shortReply: 'Soon' })).toEqual([
      'Soon',
      'Put by 1 hour',
    ]);
    expect(actions({ buttons: ['open', 'open'] })).toEqual(['Open']);
    expect(actions({ talk: null, buttons: ['put-by', 'back-soon'] })).toEqual(['Back in 15 min']);
  });

  it('keeps still where neither sound nor vibration is wanted', () => {
    expect(alertFor(ringLoad({ sound: null, vibrates: false }), now)?.options.silent).toBe(true);
    expect(alertFor(ringLoad({ sound: null }), now)?.options.silent).toBe(false);
  });
});

describe('a push', () => {
  it('is one alert a conversation, which the next one takes the place of', async () => {
    const { ringing, titles, badges } = openBrowser();
    await ringing.pushed(ringLoad());
    await ringing.pushed(ringLoad({ unread: 2 }));
    await ringing.pushed(ringLoad({ talk: 'talk-00002', called: { by: 'name', what: 'Robin' } }));
    expect(titles()).toEqual(['Wren', 'Robin']);
    expect(badges).toEqual([3, 3, 3]);
  });

  it('shows nothing where the app is in sight, but for a ring that was asked for', async () => {
    const inSight = { visibilityState: 'visible', focus: async () => 0, postMessage: () => 0 };
    const { ringing, titles } = openBrowser({ windows: async () => [inSight] });
    await ringing.pushed(ringLoad());
    expect(titles()).toEqual([]);
    await ringing.pushed({ say: 'trial', ring: 'ring-00002', sound: null, vibrates: false });
    expect(titles()).toEqual(['Your doorbell works']);
  });

  it('is shown without its pictures where they fail, or do not come', async () => {
    const failing = openBrowser({ pictures: () => Promise.reject(new Error('no signal')) });
    await failing.ringing.pushed(ringLoad());
    expect(failing.titles()).toEqual(['Wren']);
    const slow = openBrowser({
      pictures: () => new Promise(() => undefined),
      wait: () => Promise.resolve(),
    });
    await slow.ringing.pushed(ringLoad());
    expect(slow.titles()).toEqual(['Wren']);
  });

  it('that takes back comes after the one that it takes back, however long that takes', async () => {
    let bring: (pictures: object) => void = () => undefined;
    const pictures = () =>
      new Promise<object>((brought) => {
        bring = brought;
      });
    const { ringing, titles } = openBrowser({ pictures });
    const rung = ringing.pushed(ringLoad());
    const hushed = ringing.pushed({ say: 'hush', talk: 'talk-00001', waiting: 0, by: 'Tobias' });
    await new Promise(setImmediate);
    bring({});
    await Promise.all([rung, hushed]);
    expect(titles()).toEqual([]);
  });

  it('is taken back where the app has heard of a look, and no other', async () => {
    const { ringing, titles } = openBrowser();
    const rung = ringing.pushed(ringLoad());
    const looked = ringing.looked(['talk-00001']);
    const other = ringing.pushed({ ...ringLoad(), talk: 'talk-00002' });
    await Promise.all([rung, looked, other]);
    expect(titles()).toEqual(['Wren']);
    await ringing.looked(['talk-00002']);
    expect(titles()).toEqual([]);
  });

  it('that fails holds up none after it', async () => {
    let isBroken = true;
    const { ringing, badges } = openBrowser({
      windows: async () => {
        if (isBroken) throw new Error('broken');
        return [];
      },
    });
    await expect(ringing.pushed(ringLoad())).rejects.toThrow('broken');
    isBroken = false;
    await ringing.pushed(ringLoad());
    expect(badges).toEqual([3]);
  });

  it('takes back what was shown of a conversation, and no other', async () => {
    const { ringing, titles, badges } = openBrowser();
    await ringing.pushed(ringLoad());
    await ringing.pushed(ringLoad({ talk: 'talk-00002', called: { by: 'name', what: 'Robin' } }));
    await ringing.pushed({ say: 'hush', talk: 'talk-00001', waiting: 1, by: 'Tobias' });
    expect(titles()).toEqual(['Robin']);
    expect(badges.at(-1)).toBe(1);
  });

  it('says that it is settled where nothing may come without being shown', async () => {
    const { ringing, alerts } = openBrowser({ mustShow: true });
    await ringing.pushed(ringLoad());
    await ringing.pushed({ say: 'hush', talk: 'talk-00001', waiting: 0, by: 'Tobias' });
    expect(alerts().map(({ title, options }) => [title, options.silent])).toEqual([
      ['Tobias has looked.', true],
    ]);
  });

  it('tells the house that a ring that was asked for has arrived', async () => {
    const { ringing, asked } = openBrowser();
    await ringing.pushed({ say: 'trial', ring: 'ring-00002', sound: null, vibrates: true });
    expect(asked).toEqual([
      {
        method: 'POST',
        path: '/api/bell-devices/device-0001/arrived',
        body: { ring: 'ring-00002' },
        lane: null,
      },
    ]);
  });

  it('shows that somebody wrote where there was no room for more', async () => {
    const { ringing, titles } = openBrowser();
    await ringing.pushed({ say: 'bare', talk: 'talk-00001' } satisfies PushLoad);
    expect(titles()).toEqual(['Somebody wrote']);
  });
});

describe('a tap', () => {
  it('opens the very conversation: in the window that is open, or in a new one', async () => {
    const told: unknown[] = [];
    const behind = {
      visibilityState: 'hidden',
      focus: async () => 0,
      postMessage: (said: unknown) => told.push(said),
    };
    const open = openBrowser({ windows: async () => [behind] });
    await open.ringing.tapped('', open.data);
    expect([told, open.opened]).toEqual([[{ say: 'open', path: '/line/talk-00001' }], []]);
    const shut = openBrowser();
    await shut.ringing.tapped('open', shut.data);
    await shut.ringing.tapped('', { ...shut.data, talk: null });
    expect(shut.opened).toEqual(['/line/talk-00001', '/line']);
  });

  it('on a button asks the house for just that, by the house’s clock', async () => {
    const { ringing, data, asked, opened } = openBrowser();
    await ringing.tapped('short-reply', data);
    await ringing.tapped('put-by', data);
    await ringing.tapped('back-soon', data);
    expect(asked.map(({ path, body }) => [path, body])).toEqual([
      [
        '/api/conversations/talk-00001/deeds',
        {
          do: 'say',
          id: 'say-ring-00001',
          text: 'In a moment',
          fileIds: [],
          threadId: 'thread-0001',
        },
      ],
      [
        '/api/conversations/talk-00001/deeds',
        { do: 'put-by', id: 'put-ring-00001', until: now + 5 + 3_600_000 },
      ],
      ['/api/lamp', { state: 'back-soon', until: now + 5 + 900_000 }],
    ]);
    expect(opened).toEqual([]);
  });

  it('without signal keeps what is for a conversation, and says so', async () => {
    const { ringing, data, kept, titles } = openBrowser({ ask: async () => 0 });
    await ringing.tapped('short-reply', data);
    expect(kept).toHaveLength(1);
    expect(titles()).toEqual(['Not sent yet']);
    await ringing.tapped('back-soon', data);
    expect(kept).toHaveLength(1);
    expect(titles()).toEqual(['Not sent yet', 'This was not done']);
  });

  it('says that what was refused was not done', async () => {
    const { ringing, data, kept, titles } = openBrowser({ ask: async () => 409 });
    await ringing.tapped('short-reply', data);
    expect([kept.length, titles()]).toEqual([0, ['This was not done']]);
  });

  it('asks for nothing that a button cannot mean', () => {
    const without = { ring: '', talk: null, shortReply: '' };
    expect(alertDeeds.map((deed) => requestFor(deed, without, now)?.path ?? null)).toEqual([
      null,
      null,
      '/api/lamp',
      null,
    ]);
  });
});
