import type { ShelfSaid } from '@porch/core/conversation';
import { SHELF_SAID_MOST } from '@porch/core/shelf/most';
import { useRef, useState } from 'react';
import { drafts } from '../../../shell/offline/drafts';
import { problemOf } from '../../../shell/session/problems';
import { ApiError } from '../../../shell/session/refused';
import { readied } from '../../shelf/data/shelf';
import { shelfGone, shelfNames } from '../../shelf/parts/shelf-tray';

const isGone = (error: unknown): boolean =>
  error instanceof ApiError && ['shelf-gone', 'offer-over'].includes(error.refusal.code);

/** Something as far as it is known without the house. */
const byName = ({ id, name }: { id: string; name: string }): ShelfSaid => ({
  id,
  kind: 'item',
  name,
  lines: [],
  link: '',
  linkWords: '',
  files: [],
});

/** What is put into an answer from the shelf. It stays on this device until it is sent. */
export const useThings = (conversationId: string, setProblem: (problem: string) => void) => {
  const [chosen, setChosen] = useState(() => drafts.shelf(conversationId));
  // What several who add to it at once build on.
  const held = useRef(chosen);

  const change = (after: ShelfSaid[]): void => {
    held.current = after;
    drafts.keepShelf(conversationId, after);
    setChosen(after);
  };

  /** Adds it where there is room, and says where there is none. */
  const add = (said: ShelfSaid): boolean => {
    if (held.current.some(({ id }) => id === said.id)) return false;
    if (held.current.length >= SHELF_SAID_MOST) {
      setProblem(shelfNames().most(SHELF_SAID_MOST));
      return false;
    }
    change([...held.current, said]);
    return true;
  };

  /** As it stands at the house, with a picture that may have been fetched from elsewhere. */
  const refresh = (id: string): Promise<void> =>
    readied(conversationId, id).then((now) =>
      change(held.current.map((one) => (one.id === id ? now : one))),
    );

  return {
    chosen,
    put: (said: ShelfSaid): void => {
      setProblem('');
      // Without a connection it stands as it was found; the house looks once more when it is sent.
      if (add(said)) refresh(said.id).catch((error: Error) => setProblem(problemOf(error)));
    },
    /**
     * What goes with a quick reply: what is there no more, or over, is left out, and that is said. Without a connection
     * it goes by its name; the house says what it is when it is sent.
     */
    putAll: (named: readonly { id: string; name: string }[]): void => {
      for (const { id, name } of named) {
        readied(conversationId, id).then(add, (error: unknown) => {
          if (isGone(error)) setProblem(shelfGone(name));
          else add(byName({ id, name }));
        });
      }
    },
    takeOut: (id: string): void => change(held.current.filter((one) => one.id !== id)),
    clear: (): void => change([]),
  };
};
