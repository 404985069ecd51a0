import {
  LETTER_EVERY_MS,
  LETTER_LONGEST_MS,
  LETTERS_BETWEEN_SOCKETS,
  openCarrier,
  PULSE_EVERY_MS,
  SILENCE_LONGEST_MS,
  type Socket,
  WELCOME_LONGEST_MS,
} from '.';

type Says = { do: string; text?: string };
type Told = { say: string; text?: string };

class PlayedSocket implements Socket {
  readyState = 0;
  sent: Says[] = [];
  onopen: (() => void) | null = null;
  onmessage: ((event: { data: string }) => void) | null = null;
  onclose: (() => void) | null = null;

  send(text: string): void {
    this.sent.push(JSON.parse(text));
  }

  open(): void {
    this.readyState = 1;
    this.onopen?.();
  }

  tell(message: Told): void {
    this.onmessage?.({ data: JSON.stringify(message) });
  }

  close(): void {
    this.readyState = 3;
    this.onclose?.();
  }
}

/** A world that the test plays: sockets, letters and a clock. */
const openWorld = () => {
  let now = 0;
  let timers: { at: number; deed: () => void }[] = [];
  const sockets: PlayedSocket[] = [];
  const posted: { says: Says[]; answer(told: Told[] | null): Promise<void> }[] = [];
  const heard: Told[] = [];
  const changes: boolean[] = [];
  const carrier = openCarrier<Says, Told>(
    {
      newSocket: () => {
        const socket = new PlayedSocket();
        sockets.push(socket);
        return socket;
      },
      post: (says) =>
        new Promise((resolve) => {
          posted.push({
            says,
            answer: async (told) => {
              resolve(told);
              await settle();
            },
          });
        }),
      after: (ms, deed) => {
        const timer = { at: now + ms, deed };
        timers.push(timer);
        return () => {
          timers = timers.filter((one) => one !== timer);
        };
      },
      now: () => now,
      random: () => 0,
    },
    {
      hello: () => ({ do: 'hello' }),
      pulse: { do: 'pulse' },
      lettersMost: 3,
      newsOf: (message) => (message.say === 'welcome' ? [{ say: 'news' }] : [message]),
      hear: (message) => heard.push(message),
      changed: (isOpen) => changes.push(isOpen),
    },
  );
  const wait = (ms: number): void => {
    const end = now + ms;
    for (;;) {
      const [next] = timers.filter(({ at }) => at <= end).sort((a, b) => a.at - b.at);
      if (!next) break;
      timers = timers.filter((timer) => timer !== next);
      now = next.at;
      next.deed();
    }
    now = end;
  };
  /** Lets what was waiting for a promise go on. */
  const settle = async (): Promise<void> => {
    for (let turn = 0; turn < 8; turn += 1) await Promise.resolve();
  };
  const last = <One>(list: One[]): One => {
    const one = list.at(-1);
    if (!one) throw new Error('there is none yet');
    return one;
  };
  return {
    carrier,
    heard,
    changes,
    sockets,
    posted,
    wait,
    settle,
    socket: () => last(sockets),
    letter: () => last(posted),
    /** What stands in the last letter after its hello. */
    saidInLetter: () =>
      last(posted)
        .says.slice(1)
        .map(({ text }) => text),
    /** Two sockets come to nothing, so that a letter is written. */
    blockSockets: () => {
      last(sockets).close();
      wait(1_000);
      last(sockets).close();
      wait(2_000);
    },
  };
};

const welcome = { say: 'welcome' };

describe('the connection to the server', () => {
  it('is a socket that says hello, and carries both ways once it is welcome', () => {
    const world = openWorld();
    expect(world.carrier.send({ do: 'say' })).toBe(false);
    world.socket().open();
    expect(world.socket().sent).toEqual([{ do: 'hello' }]);
    expect(world.changes).toEqual([]);
    world.socket().tell(welcome);
    expect(world.changes).toEqual([true]);
    expect(world.carrier.send({ do: 'say', text: 'Hi' })).toBe(true);
    world.socket().tell({ say: 'taken' });
    expect(world.heard).toEqual([welcome, { say: 'taken' }]);
    expect(world.posted).toHaveLength(0);
  });

  it('comes back by itself, slower from time to time, and at once when woken', () => {
    const world = openWorld();
    world.socket().open();
    world.socket().tell(welcome);
    world.socket().close();
    expect(world.changes).toEqual([true, false]);
    world.wait(499);
    expect(world.sockets).toHaveLength(1);
    world.wait(1);
    expect(world.sockets).toHaveLength(2);
    world.socket().close();
    world.carrier.wake();
    expect(world.sockets).toHaveLength(3);
  });

  it('gives up a socket on which nothing is heard, though it looks open', () => {
    const world = openWorld();
    world.socket().open();
    world.socket().tell(welcome);
    world.wait(PULSE_EVERY_MS);
    expect(world.socket().sent.at(-1)).toEqual({ do: 'pulse' });
    world.wait(SILENCE_LONGEST_MS);
    expect(world.changes.slice(0, 2)).toEqual([true, false]);
    expect(world.sockets.length).toBeGreaterThan(1);
  });

  it('gives up a socket that is never welcomed', () => {
    const world = openWorld();
    world.socket().open();
    world.wait(WELCOME_LONGEST_MS);
    expect(world.changes).toEqual([false]);
    world.wait(500);
    expect(world.sockets).toHaveLength(2);
  });

  it('says hello anew at once when it is asked to, and hears no more of what was before', () => {
    const world = openWorld();
    world.socket().open();
    world.socket().tell(welcome);
    const before = world.socket();
    world.carrier.anew();
    expect(world.socket()).not.toBe(before);
    expect(world.changes).toEqual([true, false]);
    world.socket().open();
    expect(world.socket().sent).toEqual([{ do: 'hello' }]);
    const heard = world.heard.length;
    before.tell({ say: 'taken' });
    expect(world.heard).toHaveLength(heard);
    world.socket().tell(welcome);
    expect(world.changes).toEqual([true, false, true]);
  });

  it('closes for good', () => {
    const world = openWorld();
    world.carrier.close();
    world.wait(600_000);
    world.carrier.wake();
    expect(world.sockets).toHaveLength(1);
    expect(world.posted).toHaveLength(0);
    expect(world.changes).toEqual([]);
  });
});

describe('letters, where no socket is let through', () => {
  it('carry the same words: hello, what is said, and what is new', async () => {
    const world = openWorld();
    world.blockSockets();
    expect(world.letter().says).toEqual([{ do: 'hello' }]);
    await world.letter().answer([welcome]);
    expect(world.heard).toEqual([welcome]);
    expect(world.changes).toEqual([false, false, true]);

    expect(world.carrier.send({ do: 'say', text: 'By letter' })).toBe(true);
    expect(world.letter().says).toEqual([{ do: 'hello' }, { do: 'say', text: 'By letter' }]);
    await world.letter().answer([welcome, { say: 'taken' }]);
    expect(world.heard.slice(1)).toEqual([{ say: 'news' }, { say: 'taken' }]);
    expect(world.changes).toEqual([false, false, true]);
  });

  it('are written every four seconds, one at a time, and no more in each than it may hold', async () => {
    const world = openWorld();
    world.blockSockets();
    await world.letter().answer([welcome]);
    for (const text of ['1', '2', '3', '4']) world.carrier.send({ do: 'say', text });
    expect(world.posted).toHaveLength(2);
    expect(world.letter().says).toEqual([{ do: 'hello' }, { do: 'say', text: '1' }]);
    await world.letter().answer([welcome]);
    world.wait(0);
    expect(world.saidInLetter()).toEqual(['2', '3']);
    await world.letter().answer([welcome]);
    world.wait(0);
    expect(world.saidInLetter()).toEqual(['4']);
    await world.letter().answer([welcome]);
    const before = world.posted.length;
    world.wait(LETTER_EVERY_MS - 1);
    expect(world.posted).toHaveLength(before);
    world.wait(1);
    expect(world.posted).toHaveLength(before + 1);
  });

  it('end when one does not arrive, and it is told that what was on its way may be lost', async () => {
    const world = openWorld();
    world.blockSockets();
    await world.letter().answer([welcome]);
    world.carrier.send({ do: 'say' });
    const sockets = world.sockets.length;
    await world.letter().answer(null);
    expect(world.changes.at(-1)).toBe(false);
    expect(world.sockets).toHaveLength(sockets + 1);
    expect(world.carrier.send({ do: 'say' })).toBe(false);
  });

  it('are given up when no answer comes, and a new one is tried', async () => {
    const world = openWorld();
    world.blockSockets();
    await world.letter().answer([welcome]);
    world.carrier.send({ do: 'say', text: 'Into the tunnel' });
    const { letter, sockets } = { letter: world.letter(), sockets: world.sockets.length };
    world.wait(LETTER_LONGEST_MS - 1);
    await world.settle();
    expect(world.changes.at(-1)).toBe(true);
    world.wait(1);
    await world.settle();
    expect(world.changes.at(-1)).toBe(false);
    expect(world.sockets).toHaveLength(sockets + 1);
    // What comes after all is said anew in the next welcome, so that it is not heard twice.
    const heard = world.heard.length;
    await letter.answer([welcome, { say: 'taken' }]);
    expect(world.heard).toHaveLength(heard);
    world.socket().close();
    world.wait(LETTER_LONGEST_MS);
    expect(world.letter()).not.toBe(letter);
    expect(world.saidInLetter()).toEqual([]);
  });

  it('say hello anew in the next one, written at once', async () => {
    const world = openWorld();
    world.blockSockets();
    await world.letter().answer([welcome]);
    const written = world.posted.length;
    world.carrier.anew();
    expect(world.posted).toHaveLength(written + 1);
    expect(world.letter().says).toEqual([{ do: 'hello' }]);
  });

  it('give way to a socket as soon as one is let through', async () => {
    const world = openWorld();
    world.blockSockets();
    await world.letter().answer([welcome]);
    const sockets = world.sockets.length;
    for (let letter = 1; letter < LETTERS_BETWEEN_SOCKETS; letter += 1) {
      world.wait(LETTER_EVERY_MS);
      await world.letter().answer([welcome]);
    }
    expect(world.sockets).toHaveLength(sockets + 1);
    // One that fails beside the letters disturbs nothing.
    const changes = world.changes.length;
    world.socket().close();
    expect(world.changes).toHaveLength(changes);
    for (let letter = 0; letter < LETTERS_BETWEEN_SOCKETS; letter += 1) {
      world.wait(LETTER_EVERY_MS);
      await world.letter().answer([welcome]);
    }
    world.wait(LETTER_EVERY_MS);
    world.socket().open();
    world.socket().tell(welcome);
    expect(world.changes.slice(-2)).toEqual([false, true]);
    const written = world.posted.length;
    // The letter that was on its way comes too late to bring letters back.
    await world.letter().answer([welcome]);
    world.wait(LETTER_EVERY_MS * 3);
    expect(world.posted).toHaveLength(written);
    expect(world.carrier.send({ do: 'say', text: 'On the socket' })).toBe(true);
    expect(world.socket().sent.at(-1)).toEqual({ do: 'say', text: 'On the socket' });
  });

  it('write to nobody in vain for ever: the waits grow', async () => {
    const world = openWorld();
    world.blockSockets();
    await world.letter().answer(null);
    world.socket().close();
    const sockets = world.sockets.length;
    const letters = world.posted.length;
    world.wait(3_000);
    expect(world.posted).toHaveLength(letters);
    expect(world.sockets).toHaveLength(sockets);
    world.wait(60_000);
    expect(world.posted).toHaveLength(letters + 1);
  });
});
