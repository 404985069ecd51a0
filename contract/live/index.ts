import type { Entry } from '@porch/core/conversation';
import { z } from 'zod';
import { type Counts, IdSchema, LastSchema, type Row, SeqSchema } from '../entries';
import type { TeamLamp } from '../lamp';
import { LETTER_MOST } from '../limits';
import type { Since } from '../line';

/** Everything that a team's device may send over its socket. */
export const FromTeamSchema = z.discriminatedUnion('do', [
  /** `last` names the entry at `since`: after a restored backup another one may stand there. */
  z.object({ do: z.literal('hello'), since: SeqSchema, last: LastSchema }),
  z.object({ do: z.literal('typing'), conversationId: IdSchema }),
  z.object({ do: z.literal('has'), seq: SeqSchema }),
  /** Which conversation is open and in sight; null: none. Whoever looks at it is not rung for it. */
  z.object({ do: z.literal('sees'), conversationId: IdSchema.nullable() }),
  /**
   * Whether the app is in sight on this device, and whether somebody has just touched it: the light is lit for visitors
   * only while somebody is known to be here.
   */
  z.object({ do: z.literal('here'), isInSight: z.boolean(), isTouched: z.boolean() }),
  z.object({ do: z.literal('pulse') }),
]);
export type FromTeam = z.infer<typeof FromTeamSchema>;

/** What a device says where no socket can be had; the answer is what it is told, in a letter as well. */
export const TeamLetterSchema = z.object({ says: z.array(FromTeamSchema).min(1).max(LETTER_MOST) });
export type TeamLetter = z.infer<typeof TeamLetterSchema>;

/** Everything that a team's device may be sent. */
export type ToTeam =
  | ({
      say: 'welcome';
      now: number;
      lamp: TeamLamp;
      /** Another one when something about the house has changed since. */
      houseMark: string;
    } & Since)
  | {
      say: 'entries';
      entries: Entry[];
      rows: Row[];
      counts: Counts;
      seq: number;
      last: string | null;
    }
  | { say: 'lamp'; lamp: TeamLamp; now: number }
  | { say: 'typing'; conversationId: string }
  /** Something about the house, its doors or its team is another; read it anew. */
  | { say: 'house' }
  /** When answers are due, and so the order of the line, is another; read it anew. */
  | { say: 'line' }
  | { say: 'pulse' }
  | { say: 'signed-out' };

export interface LetterToTeam {
  says: ToTeam[];
}
