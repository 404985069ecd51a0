import { hearEmoji } from '@porch/client/emoji';
import { useEffect, useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { useTheme } from '../../kit/theme/use-theme';
import { kitWords } from '../../kit/words';
import { shellWords } from '../words';

const HEIGHT = 320;
const WIDEST = 420;

/**
 * The picker of emoji, loaded when it is opened. It stands in a frame of its own, which may draw itself as nothing else
 * of the app may.
 */
export const EmojiFrame = (props: {
  pick: (emoji: string) => void;
  close: () => void;
  missing: () => void;
}) => {
  const theme = useTheme();
  const frame = useRef<HTMLIFrameElement>(null);
  const said = useRef(props);
  said.current = props;
  useEffect(() => {
    if (!frame.current) return;
    frame.current.focus();
    const { paper, linen, seam, edge, ink, slate } = theme;
    return hearEmoji(
      frame.current,
      { paper, linen, seam, edge, ink, slate },
      {
        pick: (emoji) => said.current.pick(emoji),
        close: () => said.current.close(),
        missing: () => said.current.missing(),
      },
    );
  }, [theme]);
  return (
    <View style={[styles.picker, { borderColor: theme.edge }]}>
      <iframe
        // Drawn anew where the system's mode changes: it is dressed when it begins.
        key={theme.paper}
        ref={frame}
        title={shellWords().emoji}
        src={`/widget/emoji?language=${kitWords().locale}`}
        style={{ border: 0, width: '100%', height: HEIGHT, colorScheme: 'normal' }}
      />
    </View>
  );
};

const styles = StyleSheet.create({
  picker: { maxWidth: WIDEST, width: '100%', borderWidth: 1, overflow: 'hidden' },
});
