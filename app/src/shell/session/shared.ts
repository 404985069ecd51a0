import { type HeldFile, withChosen } from '@porch/client/files';
import { createSmallStore } from './small-store';

/** What another app handed over, until somebody has said for whom it is. */
export interface Shared {
  text: string;
  files: HeldFile[];
}

const SHARED = 'shared';
const store = createSmallStore<Shared>('porch-shared');

const textOf = (form: FormData): string =>
  ['title', 'text', 'url']
    .map((field) => String(form.get(field) ?? '').trim())
    // Some apps give an address twice, or the title again as the text.
    .filter((part, at, parts) => part !== '' && parts.indexOf(part) === at)
    .join('\n');

/** What a form of another app comes to: its words, and as many of its files as a message takes. */
export const toShared = (form: FormData): Shared => {
  const chosen = form.getAll('files').filter((one): one is File => one instanceof File);
  return { text: textOf(form), files: withChosen([], chosen).files };
};

/** Keeps what was shared; what was shared before and never used goes. */
export const keepShared = (form: FormData): Promise<void> => store.set(SHARED, toShared(form));

export const sharedNow = (): Promise<Shared | null> => store.get(SHARED);

export const dropShared = (): Promise<void> => store.drop(SHARED);
