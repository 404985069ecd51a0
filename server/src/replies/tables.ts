import type { rowRefusals, TakenIn, tableForms } from '@porch/contract/replies';
import { cleanCode, REPLIES_MOST } from '@porch/core/replies';
import { cleanLine, cleanMessage } from '@porch/core/text';
import type { Change } from '../inbox/batch';
import { Refused } from '../refused';
import { newId } from '../security/tokens';
import type { QuickReplyRecord, Store } from '../store';
import { rowsOf, rowsOfJson, type TableRow } from '../tables/reading';
import { toCsv } from '../tables/writing';
import type { KeptReplies } from './replies';

type Form = (typeof tableForms)[number];
type Why = (typeof rowRefusals)[number];

const columns = ['code', 'title', 'text', 'group', 'language', 'own'] as const;
/** So many rows are said to be refused one by one. */
const REFUSED_TOLD_MOST = 100;
/** More than can be kept; what stands behind them is counted and no more. */
const ROWS_LOOKED_AT_MOST = 2 * REPLIES_MOST;

const whyOf = ({ code, facts }: Refused): Why => {
  if (code === 'text-too-long') return facts.field === 'title' ? 'title-too-long' : code;
  if (code === 'text-empty' || code === 'short-code-taken' || code === 'too-many-of-these')
    return code;
  return 'not-a-row';
};

const isYes = (cell = ''): boolean => /^(yes|y|true|1|x)$/i.test(cell.trim());

/** Quick replies as tables: read in as often as one likes, and written out. Pictures do not go with them. */
export const createReplyTables = (services: {
  store: Store;
  change: Change;
  replies: KeptReplies;
}) => {
  const { store, change, replies } = services;

  const theirs = (memberId: string): QuickReplyRecord[] =>
    store.quickReplies.all().filter((one) => one.memberId === null || one.memberId === memberId);

  /** Which one a row is about: the one with its code; without a code, the one with its title. */
  const knownFor = (known: readonly QuickReplyRecord[], code: string, title: string) =>
    known.find((one) => (code ? one.code === code : one.title === title));

  const takeRow = (
    { cells }: TableRow,
    memberId: string,
    known: QuickReplyRecord[],
    language: string,
  ): 'added' | 'changed' | 'same' => {
    const code = cleanCode(cells.code ?? '');
    const text = cleanMessage(cells.text ?? '');
    const title = cleanLine(cells.title ?? '') || cleanLine(text).slice(0, 60);
    const before = knownFor(known, code, title);
    const files = before ? (store.quickReplies.files().get(before.id) ?? []) : [];
    const shelf = before ? (store.quickReplies.shelf().get(before.id) ?? []) : [];
    const id = before?.id ?? newId();
    const isChanged = replies.putNow(
      id,
      {
        revision: before?.revision ?? 0,
        isOwn: isYes(cells.own),
        title,
        code,
        text,
        group: cells.group ?? '',
        language: /^[a-z]{2,3}$/.test(cells.language ?? '') ? (cells.language ?? '') : language,
        fileIds: files,
        shelfIds: shelf.map((one) => one.id),
      },
      memberId,
    );
    if (!isChanged) return 'same';
    const now = store.quickReplies.byId(id);
    if (now) known.splice(before ? known.indexOf(before) : known.length, before ? 1 : 0, now);
    return before ? 'changed' : 'added';
  };

  return {
    take: async (
      form: Form,
      bytes: Buffer,
      memberId: string,
      language: string,
    ): Promise<TakenIn> => {
      const all = form === 'json' ? rowsOfJson(bytes, 'text') : rowsOf(bytes, 'text');
      const rows: TableRow[] = [];
      let rowCount = 0;
      for await (const row of all) {
        rowCount += 1;
        if (rows.length < ROWS_LOOKED_AT_MOST) rows.push(row);
      }
      const counts = { added: 0, changed: 0, same: 0 };
      const refused: TakenIn['refused'] = [];
      let refusedCount = rowCount - rows.length;
      change(() => {
        const known = theirs(memberId);
        for (const one of rows) {
          try {
            counts[takeRow(one, memberId, known, language)] += 1;
          } catch (error) {
            if (!(error instanceof Refused)) throw error;
            refusedCount += 1;
            const what = cleanLine(one.cells.title || one.cells.code || one.cells.text || '');
            if (refused.length < REFUSED_TOLD_MOST) {
              refused.push({ row: one.row, why: whyOf(error), what: what.slice(0, 60) });
            }
          }
        }
      });
      return {
        addedCount: counts.added,
        changedCount: counts.changed,
        sameCount: counts.same,
        refused,
        refusedCount,
      };
    },
    give: (form: Form, memberId: string): string => {
      const rows = theirs(memberId).map(({ memberId: whose, ...reply }) => ({
        code: reply.code,
        title: reply.title,
        text: reply.text,
        group: reply.group,
        language: reply.language,
        own: whose ? 'yes' : '',
      }));
      return form === 'csv' ? toCsv(columns, rows) : `${JSON.stringify(rows, null, 2)}\n`;
    },
  };
};
