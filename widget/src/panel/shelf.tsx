import type { FileMention, ShelfSaid } from '@porch/core/conversation';
import { shownLink } from '@porch/core/links/web';
import { freeTimeIn } from '@porch/core/shelf/times';
import type { Conversation } from './conversation';
import { Files } from './files';
import { useSay } from './view';

const isPicture = (file: FileMention): boolean => file.picture !== undefined;

/** The free times of a card, each a button that puts it where the visitor writes. */
const Times = (props: { times: readonly string[]; write: (text: string) => void }) => {
  const say = useSay();
  return (
    <ul class="times">
      {props.times.map((time) => (
        <li key={time}>
          <button type="button" onClick={() => props.write(say('shelfTime', { time }))}>
            {time}
          </button>
        </li>
      ))}
    </ul>
  );
};

/** Something that somebody of the team has put in from the shelf: what it is, what it costs, and one thing to do. */
export const Shelf = (props: {
  conversation: Conversation;
  said: ShelfSaid;
  open: (file: FileMention) => void;
  /** Puts words where the visitor writes. */
  write: (text: string) => void;
}) => {
  const { said, conversation, open } = props;
  const say = useSay();
  const files = (which: FileMention[]) => (
    <Files conversation={conversation} files={which} open={open} />
  );
  const times = said.lines.flatMap((line) => freeTimeIn(said, line) ?? []);
  const lines = said.lines.filter((line) => freeTimeIn(said, line) === null);
  const [first, ...rest] = lines;
  // Of what is for sale the first line is what it costs.
  const price = said.kind === 'item' ? first : undefined;
  return (
    <article class={`shelf of-${said.kind}`} dir="auto" aria-label={said.name}>
      {files(said.files.filter(isPicture))}
      <div>
        <strong>{said.name}</strong>
        {price && <p class="price">{price}</p>}
        {(price ? rest : lines).map((line) => (
          <p key={line} class="words">
            {line}
          </p>
        ))}
      </div>
      {times.length > 0 && <Times times={times} write={props.write} />}
      {files(said.files.filter((file) => !isPicture(file)))}
      {said.link && (
        <a class="act" href={said.link} target="_blank" rel="noopener noreferrer nofollow">
          <b>{said.linkWords || say('shelfOpen')}</b> <small>{shownLink(said.link)}</small>
        </a>
      )}
    </article>
  );
};
