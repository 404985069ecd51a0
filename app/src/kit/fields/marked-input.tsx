import { type RefObject, useEffect, useRef } from 'react';
import {
  type StyleProp,
  StyleSheet,
  Text,
  TextInput,
  type TextInputProps,
  View,
  type ViewStyle,
} from 'react-native';
import { corner, plain, text as sizes, touch } from '../theme/sizes';
import { useTheme } from '../theme/use-theme';
import { useGrowing } from './use-growing';

/** A stretch of a text that stands out: what is still to be filled in, or what may be wrong. */
export interface Mark {
  from: number;
  to: number;
  look: 'gap' | 'wrong';
}

/** A text cut at its marks, in order; of marks that overlap the first counts. */
const cutAt = (text: string, marks: readonly Mark[]) => {
  const cut: { at: number; words: string; look: Mark['look'] | null }[] = [];
  let at = 0;
  for (const { from, to, look } of [...marks].sort((a, b) => a.from - b.from)) {
    if (from < at || to > text.length) continue;
    if (from > at) cut.push({ at, words: text.slice(at, from), look: null });
    cut.push({ at: from, words: text.slice(from, to), look });
    at = to;
  }
  cut.push({ at, words: text.slice(at), look: null });
  return cut;
};

/** The element of a field. */
export const areaOf = (field: RefObject<TextInput | null>): HTMLTextAreaElement | null =>
  field.current as unknown as HTMLTextAreaElement | null;

interface Props extends TextInputProps {
  field: RefObject<TextInput | null>;
  marks: readonly Mark[];
  /** In pixels; a longer text scrolls in it. */
  tallest: number;
  /** Of the whole, text and what lies behind it. */
  around?: StyleProp<ViewStyle>;
}

/**
 * A field of several lines in which some stretches stand out. A field draws only plain text: the same text lies behind
 * it, unseen but for its marks.
 */
export const MarkedInput = ({
  field,
  marks,
  tallest,
  value = '',
  around,
  style,
  ...rest
}: Props) => {
  const theme = useTheme();
  const grow = useGrowing(field, tallest);
  const behind = useRef<View>(null);
  const isMarked = marks.length > 0;
  useEffect(() => {
    const area = areaOf(field);
    if (!area || !isMarked) return;
    const follow = (): void => {
      const shown = behind.current as unknown as HTMLElement | null;
      if (shown) shown.style.transform = `translateY(${-area.scrollTop}px)`;
    };
    follow();
    area.addEventListener('scroll', follow);
    return () => area.removeEventListener('scroll', follow);
  }, [field, isMarked]);
  const looks = {
    gap: { backgroundColor: `${theme.lamp}55`, borderColor: theme.ember },
    wrong: { borderColor: theme.brick, borderStyle: 'dotted' },
  } as const;
  return (
    <View style={[styles.whole, { backgroundColor: theme.linen }, around]}>
      {isMarked ? (
        <View aria-hidden style={styles.clip}>
          <View ref={behind}>
            <Text style={[styles.text, styles.unseen]}>
              {cutAt(value, marks).map(({ at, words, look }) => (
                <Text key={at} style={look ? [styles.marked, looks[look]] : null}>
                  {words}
                </Text>
              ))}
            </Text>
          </View>
        </View>
      ) : null}
      <TextInput
        ref={field}
        multiline
        placeholderTextColor={theme.slate}
        value={value}
        onLayout={grow}
        {...rest}
        style={[styles.text, styles.input, { color: theme.ink, borderColor: theme.edge }, style]}
      />
    </View>
  );
};

const styles = StyleSheet.create({
  whole: { borderRadius: corner },
  clip: { position: 'absolute', top: 0, bottom: 0, left: 0, right: 0, overflow: 'hidden' },
  text: {
    paddingHorizontal: 12,
    paddingVertical: 11,
    borderWidth: 1,
    borderColor: 'transparent',
    fontFamily: plain,
    fontSize: sizes.body,
    lineHeight: sizes.body * 1.45,
  },
  input: { minHeight: touch, borderRadius: corner, backgroundColor: 'transparent' },
  unseen: { color: 'transparent' },
  // Of a stretch within a line an edge takes no room.
  marked: { borderBottomWidth: 2 },
});
