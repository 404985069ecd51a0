import type { Fit } from '@porch/contract/replies';
import { briefOf } from '@porch/core/replies';
import { Pressable, StyleSheet, View } from 'react-native';
import { Text } from '../../../kit/text';
import { touch } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { words } from '../words';

/** A text cut at words that stand out in it. ("We deliver", ["deliver"]) → "We ", and "deliver" marked. */
const cutAtWords = (
  text: string,
  marked: readonly string[],
): { at: number; part: string; isMarked: boolean }[] => {
  const known = new Set(marked);
  let at = 0;
  return text.split(/([\p{L}\p{M}\p{N}'’]+)/u).map((part) => {
    const piece = { at, part, isMarked: known.has(part) };
    at += part.length;
    return piece;
  });
};

const Marked = (props: { text: string; marked: readonly string[]; kind: 'label' | 'second' }) => {
  const theme = useTheme();
  return (
    <Text kind={props.kind} numberOfLines={3}>
      {cutAtWords(props.text, props.marked).map(({ at, part, isMarked }) => (
        <Text
          key={at}
          kind={props.kind}
          style={isMarked ? [styles.marked, { borderColor: theme.ember }] : undefined}
        >
          {part}
        </Text>
      ))}
    </Text>
  );
};

/** What fits what the visitor said, the best first; each is put where one writes, and goes by nobody else's hand. */
export const FitsPart = (props: { fits: readonly Fit[]; take: (fit: Fit) => void }) => {
  const theme = useTheme();
  const said = words().fits;
  return (
    <View role="group" aria-label={said.label} style={styles.fits}>
      <Text kind="small" tone="ember">
        {said.label}
      </Text>
      {props.fits.map((fit) => (
        <Pressable
          key={fit.id}
          role="button"
          aria-label={said.take(fit.title)}
          onPress={() => props.take(fit)}
          style={[styles.fit, { borderColor: theme.ink }]}
        >
          <Marked text={fit.title} marked={fit.words} kind="label" />
          <Marked text={briefOf(fit.text)} marked={fit.words} kind="second" />
          {fit.kind === 'reply' ? null : (
            <Text kind="small" tone="slate">
              {fit.kind === 'card' ? said.card : said.given}
            </Text>
          )}
        </Pressable>
      ))}
    </View>
  );
};

const styles = StyleSheet.create({
  fits: { gap: 6 },
  fit: { minHeight: touch, gap: 2, paddingHorizontal: 12, paddingVertical: 8, borderWidth: 2 },
  marked: { borderBottomWidth: 2 },
});
