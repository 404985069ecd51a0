import type { Row } from '@porch/contract/entries';
import { useHouse } from '../../../shell/session/house';
import { words } from '../words';

/** Gives words with who said them before them, where that was somebody of the team: "You: …", "Tobias: …". */
const useSaidBy = () => {
  const { me, team = [] } = useHouse().data ?? {};
  return (memberId: string | null, text: string): string => {
    if (memberId === null) return text;
    if (memberId === me?.id) return words().saidBy.you(text);
    const name = team.find(({ id }) => id === memberId)?.name.split(' ')[0];
    return name ? words().saidBy.them(name, text) : words().saidBy.us(text);
  };
};

/** What was said, and by whom of the team where it was one of them. */
export const useSaid = () => {
  const saidBy = useSaidBy();
  return {
    saidBy,
    /** The last words of a conversation. */
    lastSaid: ({ state }: Row): string =>
      // What an earlier fold did not keep is not known until it is folded anew.
      saidBy(
        state.lastBy === 'team' ? (state.lastMemberId ?? '') : null,
        state.lastWords || words().file,
      ),
  };
};
