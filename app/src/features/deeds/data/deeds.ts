import type { HeldFile } from '@porch/client/files';
import type { Row } from '@porch/contract/entries';
import type { RollPage } from '@porch/contract/line';
import { type FileMention, type Picked, SCREEN, type ShelfSaid } from '@porch/core/conversation';
import { type QueryClient, useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { applyNews, dropRow } from '../../../shell/live/apply';
import { rollKey, rowAhead } from '../../../shell/live/cache';
import { type Load, outbox } from '../../../shell/live/outbox';
import { serverNow } from '../../../shell/live/store';
import { useHouse } from '../../../shell/session/house';

const toMention = ({ id, name, type, sizeBytes }: HeldFile): FileMention => ({
  id,
  name,
  type,
  sizeBytes,
});

/** What puts a conversation out of the way, or brings it back. */
type Aside = { kind: 'wrapped-up' } | { kind: 'put-by'; until: number } | { kind: 'taken-back' };

const deedsOf = (client: QueryClient, memberId: string) => {
  const newest = (row: Row): Row => client.getQueryData<RollPage>(rollKey(row.id))?.row ?? row;

  const ahead = (row: Row, done: Parameters<typeof rowAhead>[1]): void =>
    applyNews(client, [], [rowAhead(newest(row), done)]);

  const happened = (id: string) => ({ id, at: serverNow(), memberId });

  /** One thing done with each of many, shown in one go. Gives the deeds' ids. */
  const withEach = (rows: readonly Row[], load: Load, kind: Aside): string[] => {
    const ids = rows.map((row) => outbox.add(row.id, load));
    const shown = rows.map((row, at) =>
      rowAhead(newest(row), { ...happened(ids[at] ?? ''), ...kind }),
    );
    applyNews(client, [], shown);
    return ids;
  };

  return {
    /** Exactly to whom the screen said that it goes, whoever writes meanwhile. */
    say: (
      row: Row,
      text: string,
      files: HeldFile[],
      threadId = row.threads[0]?.id,
      picked?: Picked,
      things: readonly ShelfSaid[] = [],
    ): void => {
      const fileIds = files.map((file) => file.id);
      const shelf = things.length > 0 ? things.map((one) => one.id) : undefined;
      const typed = { text, fileIds, files, threadId, picked, shelf, shown: things };
      const id = outbox.add(row.id, { do: 'say', ...typed });
      const said = { text, files: files.map(toMention), way: SCREEN, shelf: [...things] };
      ahead(row, { ...happened(id), kind: 'team-said', ...said });
    },
    read: (row: Row): void => {
      const upTo = Math.floor(row.state.lastSeq);
      const id = outbox.add(row.id, { do: 'read', upTo, files: [] });
      ahead(row, { ...happened(id), kind: 'team-read', upTo });
    },
    wrapUp: (rows: readonly Row[]): string[] =>
      withEach(rows, { do: 'wrap-up', files: [] }, { kind: 'wrapped-up' }),
    putBy: (rows: readonly Row[], until: number): string[] =>
      withEach(rows, { do: 'put-by', until, files: [] }, { kind: 'put-by', until }),
    /** Says that two conversations are one person's. */
    join: (row: Row, other: Row): string => {
      const id = outbox.add(row.id, { do: 'join', other: other.id, files: [] });
      dropRow(client, other.id);
      return id;
    },
    part: (row: Row, threadIds: string[]): string =>
      outbox.add(row.id, { do: 'part', threadIds, files: [] }),
    /** Says whether a mail that was held back is of whoever we wrote to. */
    ownMail: (row: Row, of: string, isTheirs: boolean): string =>
      outbox.add(row.id, { do: 'own-mail', of, isTheirs, files: [] }),
    takeBack: (rows: readonly Row[]): string[] =>
      withEach(rows, { do: 'take-back', files: [] }, { kind: 'taken-back' }),
  };
};

/**
 * What can be done in a conversation. The screen shows it at once; the outbox brings it to the server. What
 * can be undone gives the deed's id.
 */
export const useDeeds = () => {
  const client = useQueryClient();
  const memberId = useHouse().data?.me?.id ?? '';
  return useMemo(() => deedsOf(client, memberId), [client, memberId]);
};
