import { initials } from '@porch/core/text';
import { useState } from 'react';
import { Image, StyleSheet, View } from 'react-native';
import { Text } from '../../kit/text';
import { corner } from '../../kit/theme/sizes';
import { useTheme } from '../../kit/theme/use-theme';
import { pictureUrl } from './addresses';

/** Somebody's face or the business's picture; without one, or where it does not come, the letters of the name. Beside a name it says nothing more. */
export const Face = (props: {
  name: string;
  pictureId: string | null;
  shape?: 'round' | 'square';
  size?: number;
}) => {
  const theme = useTheme();
  const [missing, setMissing] = useState<string | null>(null);
  const size = props.size ?? 44;
  const radius = props.shape === 'square' ? corner : size / 2;
  const url = pictureUrl(props.pictureId);
  const frame = { width: size, height: size, borderRadius: radius };
  if (url && url !== missing) {
    return <Image source={{ uri: url }} style={frame} alt="" onError={() => setMissing(url)} />;
  }
  return (
    <View aria-hidden style={[styles.letters, frame, { borderColor: theme.ink }]}>
      <Text kind="label">{initials(props.name)}</Text>
    </View>
  );
};

const styles = StyleSheet.create({
  letters: { alignItems: 'center', justifyContent: 'center', borderWidth: 2 },
});
