import type { Stop } from '@porch/core/replies';
import { StyleSheet, View } from 'react-native';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { words } from '../words';

/** The next ones come into sight as these are filled in. */
const SHOWN_MOST = 6;

/** What is still to be filled in before a message can go; a tap puts the cursor there. */
export const GapsLine = (props: { gaps: readonly Stop[]; go: (gap: Stop) => void }) => {
  const rest = props.gaps.length - SHOWN_MOST;
  return props.gaps.length === 0 ? null : (
    <View role="group" aria-label={words().gaps.label} style={styles.line}>
      <Text kind="small" tone="ember">
        {words().gaps.label}
      </Text>
      {props.gaps.slice(0, SHOWN_MOST).map((gap) => (
        <Button
          key={gap.from}
          label={gap.name}
          aria-label={words().gaps.fill(gap.name)}
          onPress={() => props.go(gap)}
          style={styles.gap}
        />
      ))}
      {rest > 0 ? (
        <Text kind="small" tone="ember">
          {words().gaps.more(rest)}
        </Text>
      ) : null}
    </View>
  );
};

/** Why a message with a gap in it does not go. */
export const gapOpen = (name: string): string => words().gaps.open(name);

export const pictureMissing = (): string => words().pictureMissing;

const styles = StyleSheet.create({
  line: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 },
  gap: { paddingHorizontal: 12, paddingVertical: 4 },
});
