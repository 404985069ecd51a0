import { z } from 'zod';

/** What became of a table that was read in, whatever it is of. `whys`: for what a row can be refused. */
export const takenSchema = <const Whys extends readonly [string, ...string[]]>(whys: Whys) =>
  z.object({
    addedCount: z.number().int(),
    changedCount: z.number().int(),
    sameCount: z.number().int(),
    refusedCount: z.number().int(),
    /** The first of those that were refused, by their rows as a spreadsheet counts them; `what`: what names it there. */
    refused: z.array(z.object({ row: z.number().int(), what: z.string(), why: z.enum(whys) })),
  });

export interface Taken<Why extends string = string> {
  addedCount: number;
  changedCount: number;
  sameCount: number;
  refusedCount: number;
  refused: { row: number; what: string; why: Why }[];
}

/** How far a table is that is being read in; null: none is. */
export const TableProgressSchema = z
  .object({ rows: z.number().int(), share: z.number() })
  .nullable();
export type TableProgress = z.infer<typeof TableProgressSchema>;
