import type { Dressed } from '@porch/contract/dress';
import { type Dress, plainDress } from '@porch/core/dress';
import { ApiError } from '../../../shell/session/refused';
import { createWorkbench } from './workbench';

/** A server that takes drafts as ours does, and can be told to fail. */
const played = () => {
  const state = { draft: plainDress(), published: plainDress(), revision: 1, by: 'Maren' };
  const failures: Error[] = [];
  const dressed = (): Dressed => ({
    draft: state.draft,
    published: state.published,
    isDraft: true,
    revision: state.revision,
    version: 1,
    publishedAt: 0,
    changedBy: state.by,
    canUndo: false,
  });
  const taking = async (revision: number, work: () => void): Promise<Dressed> => {
    const failure = failures.shift();
    if (failure) throw failure;
    if (revision !== state.revision) throw new ApiError(409, { code: 'changed-meanwhile' });
    work();
    state.revision += 1;
    return dressed();
  };
  const kept = { text: '' };
  const server = {
    load: async () => dressed(),
    save: jest.fn((revision: number, dress: Dress) =>
      taking(revision, () => {
        state.draft = dress;
      }),
    ),
    publish: (revision: number) =>
      taking(revision, () => {
        state.published = state.draft;
      }),
    undo: (revision: number) => taking(revision, () => undefined),
  };
  const keeper = {
    read: () => kept.text,
    write: (text: string) => {
      kept.text = text;
    },
  };
  /** Somebody else saves another distance; how it is fetched then is the test's to say. */
  const changeMeanwhile = (fetching: (load: () => Promise<Dressed>) => Promise<Dressed>): void => {
    state.draft = withBottom(state.draft, 60);
    state.revision += 1;
    const load = server.load;
    server.load = () => fetching(load);
  };
  const open = () => createWorkbench(server, keeper);
  return { state, failures, server, kept, changeMeanwhile, open };
};

const withSide = (dress: Dress | null, side: 'left' | 'right'): Dress => {
  const next = structuredClone(dress ?? plainDress());
  next.look.side = side;
  return next;
};
const withBottom = (dress: Dress | null, bottomPx: number): Dress => {
  const next = structuredClone(dress ?? plainDress());
  next.look.bottomPx = bottomPx;
  return next;
};
const passing = (ms: number) => jest.advanceTimersByTimeAsync(ms);

describe('working on a draft', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  it('is saved by itself once the typing pauses, not at every letter', async () => {
    const { server, state, open } = played();
    const bench = open();
    await bench.open();
    for (const bottom of [21, 22, 23]) bench.change(withBottom(bench.now().dress, bottom));
    expect(server.save).not.toHaveBeenCalled();
    await passing(800);
    expect(server.save).toHaveBeenCalledTimes(1);
    expect(state.draft.look.bottomPx).toBe(23);
    expect(bench.now().isUnsaved).toBe(false);
  });

  it('is not saved while something in it is wrong, and says what', async () => {
    const { server, open } = played();
    const bench = open();
    await bench.open();
    bench.change(withBottom(bench.now().dress, -1));
    await passing(5_000);
    expect(server.save).not.toHaveBeenCalled();
    expect(bench.now().problems[0]).toMatchObject({ field: 'look.bottomPx' });
    expect(bench.now().isUnsaved).toBe(true);
  });

  it('loses nothing that is typed while somebody else’s change is on its way', async () => {
    const { changeMeanwhile, open } = played();
    const bench = open();
    await bench.open();
    changeMeanwhile(async (load) => {
      await new Promise((resolve) => setTimeout(resolve, 500));
      return load();
    });
    bench.change(withSide(bench.now().dress, 'left'));
    await passing(800);
    bench.change(withBottom(bench.now().dress, 40));
    await passing(600);
    expect(bench.now().dress?.look).toMatchObject({ side: 'left', bottomPx: 40 });
    expect(bench.now().clashes).toMatchObject([{ mine: 40, theirs: 60 }]);
  });

  it('goes on being saved when theirs could not be fetched at first', async () => {
    const { server, state, changeMeanwhile, open } = played();
    const bench = open();
    await bench.open();
    changeMeanwhile(async (load) => {
      server.load = load;
      throw new ApiError(0, { code: 'our-fault' });
    });
    bench.change(withSide(bench.now().dress, 'left'));
    await passing(800);
    expect(bench.now().meanwhile).toBeNull();
    await passing(4_000);
    expect(state.draft.look).toMatchObject({ side: 'left', bottomPx: 60 });
  });

  it('waits for signal and is saved then', async () => {
    const { state, failures, open } = played();
    const bench = open();
    await bench.open();
    failures.push(new ApiError(0, { code: 'our-fault' }));
    bench.change(withSide(bench.now().dress, 'left'));
    await passing(800);
    expect(state.draft.look.side).toBe('right');
    await passing(3_100);
    expect(state.draft.look.side).toBe('left');
  });

  it('outlives a reload before it was saved', async () => {
    const { open, state } = played();
    const bench = open();
    await bench.open();
    bench.change(withSide(bench.now().dress, 'left'));
    const again = open();
    await again.open();
    expect(again.now().dress?.look.side).toBe('left');
    await passing(800);
    expect(state.draft.look.side).toBe('left');
  });

  it('joins what somebody else saved meanwhile, and tells what it took over', async () => {
    const { open, state } = played();
    const bench = open();
    await bench.open();
    state.draft = withBottom(state.draft, 60);
    state.revision += 1;
    state.by = 'Ines';
    bench.change(withSide(bench.now().dress, 'left'));
    await passing(1_600);
    expect(state.draft.look).toMatchObject({ side: 'left', bottomPx: 60 });
    expect(bench.now().meanwhile).toEqual({ who: 'Ines', taken: [['look', 'bottomPx']] });
  });

  it('asks where both changed the same, and saves what was decided', async () => {
    const { open, state, server } = played();
    const bench = open();
    await bench.open();
    state.draft = withBottom(state.draft, 60);
    state.revision += 1;
    bench.change(withBottom(bench.now().dress, 40));
    await passing(3_000);
    const [clash] = bench.now().clashes;
    expect(clash).toEqual({ path: ['look', 'bottomPx'], mine: 40, theirs: 60 });
    expect(bench.now().dress?.look.bottomPx).toBe(40);
    expect(server.save).toHaveBeenCalledTimes(1);
    if (clash) bench.settle(clash, 'theirs');
    await passing(800);
    expect(state.draft.look.bottomPx).toBe(60);
    expect(bench.now().clashes).toEqual([]);
  });

  it('publishes what is on the screen, also what was typed a moment ago', async () => {
    const { open, state } = played();
    const bench = open();
    await bench.open();
    bench.change(withSide(bench.now().dress, 'left'));
    await bench.publish();
    expect(state.published.look.side).toBe('left');
    expect(bench.now().done).toBe('published');
  });
});
