import type { OtherWays } from '@porch/contract/visitor';
import type { Dressing } from '../../dress/dressing';
import { voiceOf } from '../../dress/voice';
import type { Write } from '../../inbox/batch';
import type { Claims } from '../../inbox/claims';
import type { Store } from '../../store';
import type { Registry } from '../registry';
import type { Visiting, Visitor } from './visiting';

/** Other doors by which a visitor may rather write, with a code by which their conversation goes on there. */
export const createOtherWays = (services: {
  store: Store;
  dressing: Pick<Dressing, 'published'>;
  visiting: Pick<Visiting, 'writerOf' | 'stateOf'>;
  registry: Pick<Registry, 'offered' | 'kindOf'>;
  claims: Claims;
  write: Write;
}) => {
  const { dressing, visiting, registry, claims, write } = services;
  return {
    /** Links to begin to write there. No code for whoever has said nothing yet: nothing would go on. */
    waysFor: async (visitor: Visitor, language: string): Promise<OtherWays> => {
      const thread = visiting.stateOf(visitor);
      const code = thread
        ? await write(() => ({ result: claims.codeFor(thread.threadId), news: [] }))
        : null;
      const { say } = voiceOf(dressing.published(visitor.doorId), [language]);
      const text = code === null ? '' : say('wayText', { code });
      const ways = registry.offered().flatMap((door) => {
        const link = registry.kindOf(door)?.writeTo?.(door, text);
        return link ? [{ name: door.name, link }] : [];
      });
      return { code, ways };
    },
  };
};

export type OtherWaysOut = ReturnType<typeof createOtherWays>;
