import { withLinks } from '@porch/core/routes';
import { segmentsOf } from '@porch/core/segments';
import { StyleSheet, View } from 'react-native';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { words } from '../words';

/** What a text costs while it is written, and what makes it cost more. */
export const SegmentsLine = (props: {
  text: string;
  /** The same with what goes behind it. */
  whole: string;
  /** How many links go with it. */
  links: number;
  change: (text: string) => void;
}) => {
  const { text, whole, links, change } = props;
  const { count, left, encoding, costly, countInstead } = segmentsOf(withLinks(whole, links));
  if (count === 0) return null;
  const said = words().segments;
  const isDearer = countInstead !== null && countInstead < count;
  return (
    <View style={styles.line}>
      <Text kind="small" tone={count > 1 ? 'ember' : 'slate'} role="status">
        {said.cost(count, left, encoding)}
      </Text>
      {isDearer
        ? costly.map(({ character, instead }) =>
            instead === null ? null : (
              <View key={character} style={styles.costly}>
                <Text kind="small" tone="ember" style={styles.grow}>
                  {said.costly(character)}
                </Text>
                <Button
                  look="bare"
                  label={said.instead(instead)}
                  onPress={() => change(text.replaceAll(character, instead))}
                />
              </View>
            ),
          )
        : null}
    </View>
  );
};

const styles = StyleSheet.create({
  line: { gap: 2 },
  costly: { flexDirection: 'row', alignItems: 'center', gap: 8 },
  grow: { flexShrink: 1 },
});
