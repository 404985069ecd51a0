import type { ShelfSaid } from '@porch/core/conversation';
import { SHELF_SAID_MOST } from '@porch/core/shelf/most';
import { useState } from 'react';
import { drafts } from '../../../shell/offline/drafts';
import { problemOf } from '../../../shell/session/problems';
import { readied } from '../../shelf/data/shelf';
import { shelfGone, shelfNames } from '../../shelf/parts/shelf-tray';

/** What is put into an answer from the shelf. It stays on this device until it is sent. */
export const useThings = (conversationId: string, setProblem: (problem: string) => void) => {
  const [chosen, setChosen] = useState(() => drafts.shelf(conversationId));

  const change = (next: (before: ShelfSaid[]) => ShelfSaid[]): void =>
    setChosen((before) => {
      const after = next(before);
      drafts.keepShelf(conversationId, after);
      return after;
    });

  /** As it stands at the house, with a picture that may have been fetched from elsewhere. */
  const refresh = (id: string): Promise<void> =>
    readied(conversationId, id).then((now) =>
      change((before) => before.map((one) => (one.id === id ? now : one))),
    );

  const put = (said: ShelfSaid): void => {
    if (chosen.some(({ id }) => id === said.id)) return;
    if (chosen.length >= SHELF_SAID_MOST) {
      setProblem(shelfNames().most(SHELF_SAID_MOST));
      return;
    }
    setProblem('');
    change((before) => [...before, said]);
    // Without a connection it stands as it was found; the house looks once more when it is sent.
    refresh(said.id).catch((error: Error) => setProblem(problemOf(error)));
  };

  return {
    chosen,
    put,
    /** What goes with a quick reply: what is there no more, or over, is left out, and that is said. */
    putAll: (named: readonly { id: string; name: string }[]): void => {
      for (const { id, name } of named) {
        readied(conversationId, id).then(
          (said) =>
            change((before) =>
              before.length >= SHELF_SAID_MOST || before.some((one) => one.id === id)
                ? before
                : [...before, said],
            ),
          () => setProblem(shelfGone(name)),
        );
      }
    },
    takeOut: (id: string): void => change((before) => before.filter((one) => one.id !== id)),
    clear: (): void => change(() => []),
  };
};
