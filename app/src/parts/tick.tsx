import Check from 'lucide-react-native/icons/check';
import { Pressable, StyleSheet, View } from 'react-native';
import { corner, touch } from '../theme/sizes';
import { useTheme } from '../theme/use-theme';
import { words } from '../wording';
import { Words } from './words';

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
      style={styles.tick}
    >
      <View
        style={[
          styles.box,
          { borderColor: theme.ink },
          isOn ? { backgroundColor: theme.ink } : null,
        ]}
      >
        {isOn ? <Check size={20} color={theme.onInk} aria-hidden /> : null}
      </View>
      <View style={styles.grow}>
        <Words>{props.label}</Words>
        {props.more ? (
          <Words kind="second" tone="slate">
            {props.more}
          </Words>
        ) : null}
      </View>
      <Words kind="second" tone="slate">
        {isOn ? words.house.on : words.house.off}
      </Words>
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
