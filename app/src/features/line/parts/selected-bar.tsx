import type { Row } from '@porch/contract/entries';
import X from 'lucide-react-native/icons/x';
import { StyleSheet, View } from 'react-native';
import { Button, GlyphButton } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { deedNames, type RowDeeds } from '../../deeds/parts/row-deeds';
import { words } from '../words';

/** What can be done with all that is selected: with those in the line, and with those that were put out of it. */
export const SelectedBar = (props: {
  inLine: readonly Row[];
  aside: readonly Row[];
  deeds: RowDeeds;
  end: () => void;
}) => {
  const theme = useTheme();
  const { inLine, aside, deeds } = props;
  return (
    <View
      role="toolbar"
      aria-label={words().selected.bar}
      style={[styles.bar, { borderColor: theme.ink, backgroundColor: theme.linen }]}
    >
      <GlyphButton label={words().selected.end} onPress={props.end}>
        <X size={24} color={theme.ink} aria-hidden />
      </GlyphButton>
      <Text kind="label" role="status" style={styles.grow}>
        {words().selected.count(inLine.length + aside.length)}
      </Text>
      {inLine.length > 0 ? (
        <>
          <Button label={deedNames().putBy} onPress={() => deeds.putByAll(inLine)} />
          <Button look="main" label={deedNames().wrapUp} onPress={() => deeds.wrapUpAll(inLine)} />
        </>
      ) : null}
      {aside.length > 0 ? (
        <Button label={deedNames().takeBack} onPress={() => deeds.takeBackAll(aside)} />
      ) : null}
    </View>
  );
};

const styles = StyleSheet.create({
  bar: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'center',
    gap: 8,
    paddingRight: 12,
    paddingVertical: 6,
    borderTopWidth: 2,
  },
  grow: { flex: 1 },
});
