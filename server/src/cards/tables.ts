import { CARD_ROWS_MOST, type CardRows } from '@porch/contract/cards';
import type { tableForms } from '@porch/contract/replies';
import { type CardRow, cardColumns, toCardRows } from '@porch/core/cards';
import type { Dressing } from '../dress/dressing';
import type { Store } from '../store';
import { rowsOf, rowsOfJson, type TableRow } from '../tables/reading';
import { toCsv } from '../tables/writing';

type Form = (typeof tableForms)[number];

const isColumn = (name: string): name is (typeof cardColumns)[number] =>
  cardColumns.some((column) => column === name);

const toCells = ({ cells }: TableRow): CardRow =>
  Object.fromEntries(Object.entries(cells).filter(([name]) => isColumn(name)));

/** Cards as tables: read for whoever works on them, and written out as they are being worked on. Pictures do not go with them. */
export const createCardTables = (services: { store: Store; dressing: Pick<Dressing, 'of'> }) => {
  const { store, dressing } = services;
  return {
    /** The rows of a table, as many as could be taken; nothing is changed by it. */
    read: async (form: Form, bytes: Buffer): Promise<CardRows> => {
      const all = form === 'json' ? rowsOfJson(bytes, 'question') : rowsOf(bytes, 'question');
      const rows: CardRows['rows'] = [];
      for await (const one of all) {
        if (rows.length === CARD_ROWS_MOST) break;
        rows.push({ row: one.row, cells: toCells(one) });
      }
      return { rows };
    },
    give: (form: Form, doorId: string): string => {
      const { asked } = dressing.of(doorId).draft;
      const nameOf = (id: string): string => store.members.shownOf(id)?.name ?? '';
      const rows = toCardRows(asked, nameOf);
      if (form === 'json') return `${JSON.stringify(rows, null, 2)}\n`;
      return toCsv(
        cardColumns,
        rows.map((row) => Object.fromEntries(cardColumns.map((name) => [name, row[name] ?? '']))),
      );
    },
  };
};

export type CardTables = ReturnType<typeof createCardTables>;
