import type { FileMention } from '@porch/core/conversation';
import { useEffect, useState } from 'preact/hooks';
import type { Conversation } from './conversation';
import { late } from './late';
import { useSay } from './view';

/** What a slip is called on the page, by its entry's seq. */
export const slipId = (seq: number): string => `slip-${seq}`;

const useLinks = late(() => import('@porch/core/links'));

/** What every address has: that of a page, or of a mailbox. */
const mayHoldLink = /[^\s][.:@][^\s]/;

/** Words with their links. */
export const Words = ({ text }: { text: string }) => {
  const links = useLinks(mayHoldLink.test(text));
  return (
    <p class="words" dir="auto">
      {links
        ? links.pieces(text).map((piece) =>
            piece.href ? (
              <a
                key={piece.at}
                href={piece.href}
                target="_blank"
                rel="noopener noreferrer nofollow"
              >
                {piece.text}
              </a>
            ) : (
              piece.text
            ),
          )
        : text}
    </p>
  );
};

/** A picture, small; opened it is large. */
export const Picture = (props: {
  conversation: Conversation;
  file: FileMention;
  open: (file: FileMention) => void;
}) => {
  const { conversation, file } = props;
  const say = useSay();
  const [source, setSource] = useState<string | null | undefined>();
  useEffect(() => {
    let made: string | null = null;
    let isGone = false;
    void conversation.fetchFile(file.id, 'thumbnail').then((url) => {
      made = url;
      if (!isGone) setSource(url);
    });
    return () => {
      isGone = true;
      if (made) URL.revokeObjectURL(made);
    };
  }, [conversation, file.id]);
  if (source === null) return <p class="missing">{say('missingPicture')}</p>;
  const { width = 4, height = 3 } = file.picture ?? {};
  return (
    <button
      type="button"
      class="picture"
      aria-label={say('openPicture', { name: file.name })}
      onClick={() => props.open(file)}
    >
      <img src={source} alt="" width={width} height={height} />
    </button>
  );
};
