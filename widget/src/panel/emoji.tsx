import { hearEmoji } from '@porch/client/emoji';
import { useEffect, useRef } from 'preact/hooks';
import { useSay, useView } from './view';

/** The picker of emoji: a page of its own, loaded when it is opened, dressed as the panel is. */
export const EmojiFrame = (props: {
  door: string;
  pick: (emoji: string) => void;
  close: () => void;
  missing: () => void;
}) => {
  const say = useSay();
  const { language } = useView();
  const frame = useRef<HTMLIFrameElement>(null);
  const said = useRef(props);
  said.current = props;
  useEffect(() => {
    if (!frame.current) return;
    frame.current.focus();
    const worn = getComputedStyle(document.documentElement);
    const colour = (name: string): string => worn.getPropertyValue(`--${name}`).trim();
    const colours = {
      paper: colour('paper'),
      linen: colour('linen'),
      seam: colour('seam'),
      edge: colour('edge'),
      ink: colour('ink'),
      slate: colour('slate'),
    };
    return hearEmoji(frame.current, colours, {
      pick: (emoji) => said.current.pick(emoji),
      close: () => said.current.close(),
      missing: () => said.current.missing(),
    });
  }, []);
  return (
    <iframe
      ref={frame}
      class="emoji"
      title={say('emoji')}
      src={`/door/${props.door}/emoji?language=${language}`}
    />
  );
};
