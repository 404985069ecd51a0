import type { Dressed } from '@porch/contract/dress';
import {
  type Clash,
  type Dress,
  type DressProblem,
  mergeChanges,
  type Path,
  problemsOf,
  wholeDress,
  withAt,
} from '@porch/core/dress';
import { createStore } from 'zustand/vanilla';
import { ApiError } from '../../../shell/session/refused';

/** Typing pauses this long before a draft is saved. */
const SAVE_AFTER_MS = 700;
const RETRY_MS = 3_000;

/** What the workbench asks of the server. */
interface DressServer {
  load(): Promise<Dressed>;
  save(revision: number, dress: Dress): Promise<Dressed>;
  publish(revision: number): Promise<Dressed>;
  undo(revision: number): Promise<Dressed>;
}

/** Where unsaved work outlives a reload. */
interface WorkKeeper {
  read(): string | null;
  write(text: string): void;
}

export interface Work {
  /** What is being worked on; null until it is there. */
  dress: Dress | null;
  server: Dressed | null;
  problems: DressProblem[];
  /** Somebody else saved meanwhile: who, what was taken over, and what both changed. */
  meanwhile: { who: string; taken: Path[] } | null;
  clashes: Clash[];
  isSaving: boolean;
  /** Something is not on the server yet. */
  isUnsaved: boolean;
  done: 'published' | 'undone' | null;
  error: Error | null;
}

interface Kept {
  base: Dress;
  dress: Dress;
  revision: number;
}

const isConflict = (error: unknown): boolean =>
  error instanceof ApiError && error.refusal.code === 'changed-meanwhile';

const isPassing = (error: unknown): boolean =>
  error instanceof ApiError && (error.status === 0 || error.status >= 500 || error.status === 429);

const readKept = (text: string | null): Kept | null => {
  if (!text) return null;
  try {
    const kept = JSON.parse(text) as Kept;
    return { ...kept, base: wholeDress(kept.base), dress: wholeDress(kept.dress) };
  } catch {
    return null;
  }
};

/**
 * Works on a door's draft: saves by itself, keeps what could not be saved, and joins what somebody else
 * saved meanwhile, so that neither loses anything.
 */
export const createWorkbench = (server: DressServer, keeper: WorkKeeper) => {
  const store = createStore<Work>(() => ({
    dress: null,
    server: null,
    problems: [],
    meanwhile: null,
    clashes: [],
    isSaving: false,
    isUnsaved: false,
    done: null,
    error: null,
  }));
  const now = store.getState;
  const set = (change: Partial<Work>): void => store.setState(change);
  /** What both sides started from. */
  let base: Dress | null = null;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let saving: Promise<void> | null = null;

  const keepWork = (): void => {
    const { dress, server: known, isUnsaved } = now();
    const kept = base && known && { base, dress, revision: known.revision };
    keeper.write(isUnsaved && kept ? JSON.stringify(kept) : '');
  };

  const put = (dress: Dress, change: Partial<Work> = {}): void => {
    set({ dress, problems: problemsOf(dress), ...change });
    keepWork();
  };

  const schedule = (afterMs: number): void => {
    clearTimeout(timer);
    timer = setTimeout(() => void save(), afterMs);
  };

  /** Joins what is here with what somebody else saved. */
  const join = (from: Dress, mine: Dress, theirs: Dressed): void => {
    const { merged, clashes, taken } = mergeChanges(from, mine, theirs.draft);
    base = theirs.draft;
    put(merged, {
      server: theirs,
      clashes,
      meanwhile: { who: theirs.changedBy, taken },
      isUnsaved: true,
    });
    if (clashes.length === 0) schedule(SAVE_AFTER_MS);
  };

  const takeUp = async (): Promise<void> => {
    const theirs = await server.load();
    // Looked at only now: what was typed while theirs was on its way is mine too.
    const { dress } = now();
    if (base && dress) join(base, dress, theirs);
  };

  const failed = async (error: unknown): Promise<void> => {
    const left = isConflict(error)
      ? await takeUp().then(
          () => null,
          (again: unknown) => again,
        )
      : error;
    if (left === null) return;
    if (isPassing(left)) schedule(RETRY_MS);
    else set({ error: left as Error });
  };

  const saveNow = async (): Promise<void> => {
    const { dress, server: known, problems, clashes } = now();
    if (!dress || !known || !now().isUnsaved || problems.length > 0 || clashes.length > 0) return;
    set({ isSaving: true, error: null });
    try {
      const saved = await server.save(known.revision, dress);
      base = dress;
      set({ server: saved, isUnsaved: now().dress !== dress });
      keepWork();
      if (now().isUnsaved) schedule(SAVE_AFTER_MS);
    } catch (error) {
      await failed(error);
    } finally {
      set({ isSaving: false });
    }
  };

  /** One save at a time: the second builds on the first. */
  const save = (): Promise<void> => {
    clearTimeout(timer);
    saving = (saving ?? Promise.resolve()).then(saveNow);
    return saving;
  };

  const act = async (
    what: 'published' | 'undone',
    run: (revision: number) => Promise<Dressed>,
  ): Promise<void> => {
    await save();
    const { server: known, isUnsaved } = now();
    if (!known || isUnsaved) return;
    try {
      const next = await run(known.revision);
      base = next.draft;
      put(next.draft, { server: next, done: what, error: null });
    } catch (error) {
      if (isPassing(error)) set({ error: error as Error });
      else await failed(error);
    }
  };

  return {
    now,
    store,
    open: async (): Promise<void> => {
      try {
        const known = await server.load();
        const kept = readKept(keeper.read());
        base = known.draft;
        if (kept && kept.revision !== known.revision) join(kept.base, kept.dress, known);
        else if (kept) {
          put(kept.dress, { server: known, isUnsaved: true, error: null });
          schedule(SAVE_AFTER_MS);
        } else put(known.draft, { server: known, error: null });
      } catch (error) {
        set({ error: error as Error });
      }
    },
    change: (dress: Dress): void => {
      put(dress, { isUnsaved: true, done: null, meanwhile: null });
      schedule(SAVE_AFTER_MS);
    },
    /** Decides a clash: whose change stands. */
    settle: (clash: Clash, whose: 'mine' | 'theirs'): void => {
      const { dress } = now();
      if (!dress) return;
      const settled = withAt(dress, clash.path, whose === 'mine' ? clash.mine : clash.theirs);
      put(settled, { clashes: now().clashes.filter((one) => one !== clash), isUnsaved: true });
      if (now().clashes.length === 0) schedule(SAVE_AFTER_MS);
    },
    save,
    publish: (): Promise<void> => act('published', server.publish),
    undo: (): Promise<void> => act('undone', server.undo),
    close: (): void => {
      void save();
    },
  };
};

export type Workbench = ReturnType<typeof createWorkbench>;
