import type { QuickReply } from '@porch/contract/replies';
import { fileAddress } from '../../../shell/pictures/addresses';

const ONE_LONGEST_MS = 20_000;

/** The pictures that go with a quick reply, as files to be sent; null for each that cannot be had. */
export const picturesOf = (reply: QuickReply): Promise<(File | null)[]> =>
  Promise.all(
    reply.pictures.map(async ({ id, name, type }) => {
      try {
        const signal = AbortSignal.timeout(ONE_LONGEST_MS);
        const response = await fetch(fileAddress(id, 'whole'), { signal });
        return response.ok ? new File([await response.blob()], name, { type }) : null;
      } catch {
        return null;
      }
    }),
  );
