import { FILE_LARGEST_BYTES } from '@porch/contract/entries';
import type { z } from 'zod';
import type { Clock } from '../clock';
import { JobFailed } from '../jobs/worker';
import type { Answered, Asked, Outside } from '../security/outside';
import { bytesOrFail, failureOf } from './answers';

/** More is no answer to a question of ours. */
const ANSWER_LARGEST_BYTES = 256 * 1024;

type Question = Omit<Asked, 'largestBytes'> & {
  /** What the network has against this very question, by our code, as its answer says; null: nothing that it says. */
  refusal?: (said: string) => string | null;
};

const isAgainstIt = ({ status }: Answered): boolean =>
  status >= 400 && status < 500 && ![401, 403, 404, 429].includes(status);

/** Asks networks. All of it fails with a `JobFailed` that says what is wrong and whether it is worth trying again. */
export const createAsking = ({ outside, clock }: { outside: Outside; clock: Clock }) => {
  const answered = (asked: Asked): Promise<Answered> =>
    outside.ask(asked).catch((error: unknown) => {
      throw failureOf(error, asked.signal);
    });

  const text = async ({ refusal = () => null, ...asked }: Question): Promise<string> => {
    const answer = await answered({ ...asked, largestBytes: ANSWER_LARGEST_BYTES });
    const against = isAgainstIt(answer) ? refusal(answer.body.toString('utf8')) : null;
    if (against !== null) throw new JobFailed(against, true);
    return bytesOrFail(answer, clock.now()).toString('utf8');
  };

  const json = async <Shape extends z.ZodType>(
    asked: Question,
    shape: Shape,
  ): Promise<z.infer<Shape>> => {
    const said = await text(asked);
    try {
      return shape.parse(JSON.parse(said || 'null'));
    } catch {
      throw new JobFailed('answer-not-understood');
    }
  };

  const file = async ({
    address,
    headers,
    signal,
  }: Pick<Asked, 'address' | 'headers' | 'signal'>): Promise<Buffer> => {
    const asked = { method: 'GET', address, headers, signal, largestBytes: FILE_LARGEST_BYTES };
    const answer = await answered(asked);
    if (answer.isCut) throw new JobFailed('file-too-large', true);
    return bytesOrFail(answer, clock.now());
  };

  return {
    text,
    /** An answer in JSON, of a shape. */
    json,
    /** Says something in JSON, and is answered in JSON of a shape. */
    post: <Shape extends z.ZodType>(
      { what, ...asked }: Omit<Question, 'method' | 'body'> & { what: object },
      shape: Shape,
    ): Promise<z.infer<Shape>> => {
      const body = JSON.stringify(what);
      const headers = {
        ...asked.headers,
        'content-type': 'application/json',
        'content-length': Buffer.byteLength(body),
      };
      return json({ ...asked, method: 'POST', headers, body }, shape);
    },
    /** A file, from the network's own address and no other. */
    file: async (
      { address, headers, signal }: Pick<Asked, 'address' | 'headers' | 'signal'>,
      home: string,
    ): Promise<Buffer> => {
      const isTheirs = URL.canParse(address) && new URL(address).origin === new URL(home).origin;
      if (!isTheirs) throw new JobFailed('file-elsewhere', true);
      return file({ address, headers, signal });
    },
    /** A file from wherever somebody of the team has said that it lies; nothing of ours goes with the question. */
    fileAnywhere: (address: string, signal: AbortSignal): Promise<Buffer> =>
      file({ address, headers: {}, signal }),
  };
};

export type Asking = ReturnType<typeof createAsking>;
