import type { Row } from '@porch/contract/entries';
import { Pressable, StyleSheet, View } from 'react-native';
import { DoorPlate } from '../../../kit/drawn/door-plate';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { type WayOn, wayOn } from '../../../kit/way';
import { useDoorFacts } from '../../../shell/session/house';
import { RowName } from './row-name';

/** Somebody as they are found in a list: who, when, and words by which to know them. */
export const PersonRow = (props: {
  row: Row;
  when: string;
  said: string;
  lines: number;
  to: WayOn;
}) => {
  const theme = useTheme();
  const doorFacts = useDoorFacts();
  return (
    <View role="listitem">
      <Pressable {...wayOn(props.to)} style={[styles.row, { borderColor: theme.seam }]}>
        <DoorPlate plate={doorFacts(props.row.doorId)?.plate} />
        <View style={styles.grow}>
          <View style={styles.top}>
            <RowName row={props.row} />
            <Text kind="small" tone="slate">
              {props.when}
            </Text>
          </View>
          <Text kind="second" tone="slate" numberOfLines={props.lines}>
            {props.said}
          </Text>
        </View>
      </Pressable>
    </View>
  );
};

const styles = StyleSheet.create({
  row: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: 12,
    minHeight: 72,
    paddingHorizontal: 16,
    paddingVertical: 10,
    borderBottomWidth: 1,
  },
  grow: { flex: 1 },
  top: { flexDirection: 'row', alignItems: 'baseline', gap: 8 },
});
