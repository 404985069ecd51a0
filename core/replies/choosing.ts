import { wordsOf } from '../search';

/** What a quick reply is found by. */
export interface Findable {
  id: string;
  title: string;
  code: string;
  text: string;
  group: string;
  /** Somebody's own comes before the team's. */
  isOwn: boolean;
  usedCount: number;
}

interface Indexed<Reply> {
  reply: Reply;
  words: readonly string[];
}

const byUse = (a: Findable, b: Findable): number =>
  b.usedCount - a.usedCount || a.title.localeCompare(b.title);

const rankBehindDots = ({ reply, words }: Indexed<Findable>, typed: string): number => {
  if (reply.code === typed) return 0;
  if (reply.code.startsWith(typed)) return 1;
  return words.some((word) => word.startsWith(typed)) ? 2 : -1;
};

/** Made ready once, so that a search through many costs nothing that a hand would notice. */
export const indexReplies = <Reply extends Findable>(replies: readonly Reply[]) => {
  const byTitle: Indexed<Reply>[] = [...replies]
    .sort(byUse)
    .map((reply) => ({ reply, words: wordsOf(reply.title) }));
  const byAll: Indexed<Reply>[] = byTitle.map(({ reply }) => ({
    reply,
    words: wordsOf(`${reply.title} ${reply.code} ${reply.group} ${reply.text}`),
  }));
  return {
    /** What fits two dots and the beginning of a code: the code itself, codes that begin so, then titles. */
    behindDots: (code: string, most: number): Reply[] => {
      const typed = wordsOf(code).join('-');
      if (typed === '') return byTitle.slice(0, most).map(({ reply }) => reply);
      const ranked = byTitle
        .map((one) => ({ one, rank: rankBehindDots(one, typed) }))
        .filter(({ rank }) => rank >= 0);
      return ranked
        .sort((a, b) => a.rank - b.rank || Number(b.one.reply.isOwn) - Number(a.one.reply.isOwn))
        .slice(0, most)
        .map(({ one }) => one.reply);
    },
    /** Those that have every word of a search, the last of which may still be growing; most used first. */
    search: (query: string): Reply[] => {
      const sought = wordsOf(query.slice(0, 200));
      const has = ({ words }: Indexed<Reply>): boolean =>
        sought.every((one) => words.some((word) => word.startsWith(one)));
      return byAll.filter(has).map(({ reply }) => reply);
    },
  };
};

export type RepliesIndex<Reply extends Findable> = ReturnType<typeof indexReplies<Reply>>;
