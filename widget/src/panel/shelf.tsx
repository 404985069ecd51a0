import type { FileMention, ShelfSaid } from '@porch/core/conversation';
import { shownLink } from '@porch/core/links/web';
import type { Conversation } from './conversation';
import { Files } from './files';

/** Something that somebody of the team has put in from the shelf. */
export const Shelf = (props: {
  conversation: Conversation;
  said: ShelfSaid;
  open: (file: FileMention) => void;
}) => {
  const { said, conversation, open } = props;
  const isPicture = (file: FileMention): boolean => file.picture !== undefined;
  const files = (which: FileMention[]) => (
    <Files conversation={conversation} files={which} open={open} />
  );
  return (
    <article class="shelf" dir="auto" aria-label={said.name}>
      {files(said.files.filter(isPicture))}
      <strong>{said.name}</strong>
      {said.lines.map((line) => (
        <p key={line} class="words">
          {line}
        </p>
      ))}
      {said.link && (
        <a href={said.link} target="_blank" rel="noopener noreferrer nofollow">
          {said.linkWords || shownLink(said.link)}
        </a>
      )}
      {files(said.files.filter((file) => !isPicture(file)))}
    </article>
  );
};
