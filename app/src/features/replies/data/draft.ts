import { keep, kept } from '@porch/client/keeping';
import type { QuickReply } from '@porch/contract/replies';
import { codeFor, type GapFacts, titleFor, toStored } from '@porch/core/replies';

/** What is being written of a quick reply, all but its pictures. */
export interface ReplyDraft {
  title: string;
  code: string;
  text: string;
  group: string;
  language: string;
  isOwn: boolean;
  /** On which it builds; 0: it is new. */
  revision: number;
}

const keyOf = (id: string): string => `porch:reply-draft:${id}`;

const isDraft = (draft: unknown): draft is ReplyDraft =>
  typeof draft === 'object' && draft !== null && 'text' in draft && typeof draft.text === 'string';

/** What is half written stays on this device until it is saved. */
export const replyDrafts = {
  read: (id: string): ReplyDraft | null => {
    try {
      const draft: unknown = JSON.parse(kept(keyOf(id)) ?? 'null');
      return isDraft(draft) ? { ...draft, revision: draft.revision ?? 0 } : null;
    } catch {
      return null;
    }
  },
  write: (id: string, draft: ReplyDraft): void => keep(keyOf(id), JSON.stringify(draft)),
  drop: (id: string): void => keep(keyOf(id), ''),
};

/** By this name a new one is written. */
export const NEW = 'new';

export const emptyDraft = (language: string): ReplyDraft => ({
  title: '',
  code: '',
  text: '',
  group: '',
  language,
  isOwn: false,
  revision: 0,
});

export const draftOf = ({
  title,
  code,
  text,
  group,
  language,
  memberId,
  revision,
}: QuickReply): ReplyDraft => ({
  title,
  code,
  text,
  group,
  language,
  isOwn: memberId !== null,
  revision,
});

/** Begins a new one with an answer that was given to somebody: what concerned only them is a gap. */
export const draftFromAnswer = (
  text: string,
  facts: GapFacts & { name: string | null },
  language: string,
  taken: readonly string[],
): void => {
  const stored = toStored(text, facts);
  const title = titleFor(stored);
  const code = codeFor(title, (one) => taken.includes(one));
  replyDrafts.write(NEW, { ...emptyDraft(language), title, code, text: stored });
};
