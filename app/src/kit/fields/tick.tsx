import Check from 'lucide-react-native/icons/check';
import { Pressable, StyleSheet, View } from 'react-native';
import { bySpace } from '../by-space';
import { drawn } from '../drawn/in-own-colours';
import { Text } from '../text';
import { corner, touch } from '../theme/sizes';
import { useTheme } from '../theme/use-theme';
import { kitWords } from '../words';

/** Something that is on or off; the word says it as well as the box. */
export const Tick = (props: {
  label: string;
  isOn: boolean;
  onChange: (isOn: boolean) => void;
  more?: string;
}) => {
  const theme = useTheme();
  const { isOn } = props;
  return (
    <Pressable
      role="switch"
      aria-checked={isOn}
      aria-label={props.label}
      onPress={() => props.onChange(!isOn)}
      {...bySpace(() => props.onChange(!isOn))}
      style={styles.tick}
    >
      <View
        {...drawn}
        style={[
          styles.box,
          { borderColor: theme.ink },
          isOn ? { backgroundColor: theme.ink } : null,
        ]}
      >
        {isOn ? <Check size={20} color={theme.onInk} aria-hidden /> : null}
      </View>
      <View style={styles.grow}>
        <Text>{props.label}</Text>
        {props.more ? (
          <Text kind="second" tone="slate">
            {props.more}
          </Text>
        ) : null}
      </View>
      <Text kind="second" tone="slate">
        {isOn ? kitWords().on : kitWords().off}
      </Text>
    </Pressable>
  );
};

const styles = StyleSheet.create({
  tick: { minHeight: touch, flexDirection: 'row', alignItems: 'center', gap: 12 },
  box: {
    width: 28,
    height: 28,
    borderWidth: 2,
    borderRadius: corner,
    alignItems: 'center',
    justifyContent: 'center',
  },
  grow: { flex: 1 },
});
