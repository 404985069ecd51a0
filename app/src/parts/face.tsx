import { initials } from '@porch/core/text';
import { Image, StyleSheet, View } from 'react-native';
import { pictureUrl } from '../data/pictures';
import { corner } from '../theme/sizes';
import { useTheme } from '../theme/use-theme';
import { Words } from './words';

/** Somebody's face or the business's picture; without one, the letters of the name. Beside a name it says nothing more. */
export const Face = (props: {
  name: string;
  pictureId: string | null;
  shape?: 'round' | 'square';
  size?: number;
}) => {
  const theme = useTheme();
  const size = props.size ?? 44;
  const radius = props.shape === 'square' ? corner : size / 2;
  const url = pictureUrl(props.pictureId);
  const frame = { width: size, height: size, borderRadius: radius };
  if (url) return <Image source={{ uri: url }} style={frame} alt="" />;
  return (
    <View aria-hidden style={[styles.letters, frame, { borderColor: theme.ink }]}>
      <Words kind="label">{initials(props.name)}</Words>
    </View>
  );
};

const styles = StyleSheet.create({
  letters: { alignItems: 'center', justifyContent: 'center', borderWidth: 2 },
});
