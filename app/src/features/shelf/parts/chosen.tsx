import type { ShelfSaid } from '@porch/core/conversation';
import X from 'lucide-react-native/icons/x';
import { View } from 'react-native';
import { GlyphButton } from '../../../kit/press';
import { useTheme } from '../../../kit/theme/use-theme';
import { words } from '../words';
import { ShelfCard } from './shelf-card';

/** What is put in from the shelf, before it is sent. */
export const ChosenThings = (props: {
  things: readonly ShelfSaid[];
  takeOut: (id: string) => void;
}) => {
  const theme = useTheme();
  return props.things.map((said) => (
    <View key={said.id}>
      <ShelfCard said={said} lines={2}>
        <GlyphButton label={words().tray.takeOut(said.name)} onPress={() => props.takeOut(said.id)}>
          <X size={20} color={theme.ink} aria-hidden />
        </GlyphButton>
      </ShelfCard>
    </View>
  ));
};
