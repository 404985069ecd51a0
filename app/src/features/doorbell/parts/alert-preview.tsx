import type { Doorbell } from '@porch/core/ringing';
import { StyleSheet, View } from 'react-native';
import { OwnMark } from '../../../kit/drawn/own-mark';
import { Text } from '../../../kit/text';
import { corner } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { words } from '../words';

/** An alert as a lock screen shows it, with somebody made up. */
export const AlertPreview = ({ bell }: { bell: Doorbell }) => {
  const theme = useTheme();
  const said = words().how;
  const labels = [...new Set(bell.buttons)].map((deed) =>
    deed === 'short-reply' ? bell.shortReply : said.deeds[deed],
  );
  return (
    <View role="group" aria-label={said.preview} style={styles.whole}>
      <Text kind="label">{said.preview}</Text>
      <View style={[styles.alert, { backgroundColor: theme.linen, borderColor: theme.edge }]}>
        <OwnMark id="preview-of-an-alert" />
        <View style={styles.grow}>
          <Text kind="label">Wren</Text>
          <Text kind="second">{bell.hidesWords ? said.previewHidden : said.previewWords}</Text>
          <View style={styles.buttons}>
            {labels.map((label) => (
              <Text key={label} kind="second" tone="ember" numberOfLines={1} style={styles.button}>
                {label}
              </Text>
            ))}
          </View>
        </View>
      </View>
    </View>
  );
};

const styles = StyleSheet.create({
  whole: { gap: 6 },
  alert: { flexDirection: 'row', gap: 12, padding: 12, borderWidth: 1, borderRadius: corner },
  grow: { flex: 1, gap: 2 },
  buttons: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 16, marginTop: 6 },
  button: { flexShrink: 1 },
});
