import type { QuickReply } from '@porch/contract/replies';
import { codeAt, type Stretch } from '@porch/core/replies';
import { useId, useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { Text } from '../../../kit/text';
import { corner, touch } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { useRepliesIndex } from '../data/replies';
import { words } from '../words';
import { ReplyInBrief } from './reply-in-brief';

const SHOWN_MOST = 6;

interface Choosing {
  /** What is drawn above the field; null while no code is typed. */
  list: React.ReactNode;
  /** How the field says which of the list is meant. */
  aria: object;
  /** Whether a key was meant for the list. */
  press(key: string): boolean;
}

/** Quick replies behind two dots and the beginning of a code: chosen by arrow keys or a thumb. */
export const useBehindDots = (
  typed: string,
  cursor: number,
  take: (reply: QuickReply, place: Stretch) => void,
): Choosing => {
  const id = useId();
  const theme = useTheme();
  const index = useRepliesIndex();
  const [moved, setMoved] = useState({ code: '', at: 0 });
  const [shutAt, setShutAt] = useState<number | null>(null);
  const seen = codeAt(typed, cursor);
  // A code that is typed anew is another one.
  if (seen === null && shutAt !== null) setShutAt(null);
  const isShut = seen === null || seen.from === shutAt;
  const options = isShut ? [] : index.behindDots(seen.code, SHOWN_MOST);
  if (!seen || options.length === 0) return { list: null, aria: {}, press: () => false };

  const at = moved.code === seen.code ? Math.min(moved.at, options.length - 1) : 0;
  const go = (by: number): void =>
    setMoved({ code: seen.code, at: (at + by + options.length) % options.length });
  const press = (key: string): boolean => {
    const chosen = options[at];
    if (key === 'ArrowDown') go(1);
    else if (key === 'ArrowUp') go(-1);
    else if (key === 'Escape') setShutAt(seen.from);
    else if ((key === 'Enter' || key === 'Tab') && chosen) take(chosen, seen);
    else return false;
    return true;
  };
  const optionId = (place: number): string => `${id}-${place}`;
  const list = (
    <View>
      <Text kind="small" tone="slate" role="status">
        {words().behindDots.count(options.length)}
      </Text>
      <View
        nativeID={id}
        role={'listbox' as 'list'}
        aria-label={words().behindDots.label}
        style={[styles.list, { borderColor: theme.ink, backgroundColor: theme.paper }]}
      >
        {options.map((reply, place) => (
          <Pressable
            key={reply.id}
            nativeID={optionId(place)}
            role="option"
            aria-selected={place === at}
            tabIndex={-1}
            // The field keeps the cursor.
            {...{ onMouseDown: (event: Event) => event.preventDefault() }}
            onPress={() => take(reply, seen)}
            style={[
              styles.option,
              { borderColor: theme.seam },
              place === at ? { backgroundColor: theme.linen } : null,
            ]}
          >
            <ReplyInBrief reply={reply} lines={1} />
          </Pressable>
        ))}
      </View>
    </View>
  );
  const aria = {
    'aria-controls': id,
    'aria-activedescendant': optionId(at),
    'aria-autocomplete': 'list',
    'aria-haspopup': 'listbox',
  };
  return { list, aria, press };
};

const styles = StyleSheet.create({
  list: { borderWidth: 2, borderRadius: corner },
  option: { minHeight: touch, paddingHorizontal: 12, paddingVertical: 6, borderBottomWidth: 1 },
});
