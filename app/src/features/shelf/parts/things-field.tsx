import { SHELF_SAID_MOST } from '@porch/core/shelf/most';
import X from 'lucide-react-native/icons/x';
import { useDeferredValue, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Row } from '../../../kit/fields/form';
import { SearchField } from '../../../kit/fields/search-field';
import { Button, GlyphButton } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { useShelf } from '../data/shelf';
import { words } from '../words';

const FOUND_MOST = 8;

export interface Named {
  id: string;
  name: string;
}

const Finding = ({ chosen, take }: { chosen: readonly Named[]; take: (one: Named) => void }) => {
  const [typed, setTyped] = useState('');
  const sought = useDeferredValue(typed.trim());
  const { data } = useShelf(null, sought);
  const found = (data?.pages[0]?.things ?? [])
    .filter(({ id, isOver }) => !isOver && !chosen.some((one) => one.id === id))
    .slice(0, FOUND_MOST);
  return (
    <>
      <SearchField label={words().find} value={typed} change={setTyped} autoFocus />
      {data && found.length === 0 ? (
        <Text tone="slate">{sought ? words().foundNone(sought) : words().none.title}</Text>
      ) : null}
      {found.map(({ id, name }) => (
        <Row key={id}>
          <Button
            look="bare"
            label={name}
            aria-label={words().tray.take(name)}
            onPress={() => take({ id, name })}
          />
        </Row>
      ))}
    </>
  );
};

/** What of the shelf goes with something that is stored. */
export const ThingsField = (props: {
  things: readonly Named[];
  change: (things: Named[]) => void;
}) => {
  const theme = useTheme();
  const { things, change } = props;
  const [isOpen, setOpen] = useState(false);
  const said = words().chosen;
  return (
    <View role="group" aria-label={said.label} style={styles.field}>
      <Text kind="label">{said.label}</Text>
      {things.map((one) => (
        <View key={one.id} style={styles.one}>
          <Text style={styles.grow}>{one.name}</Text>
          <GlyphButton
            label={words().tray.takeOut(one.name)}
            onPress={() => change(things.filter(({ id }) => id !== one.id))}
          >
            <X size={20} color={theme.ink} aria-hidden />
          </GlyphButton>
        </View>
      ))}
      {things.length >= SHELF_SAID_MOST ? (
        <Text kind="second" tone="slate">
          {said.most(SHELF_SAID_MOST)}
        </Text>
      ) : isOpen ? (
        <Finding
          chosen={things}
          take={(one) => {
            setOpen(false);
            change([...things, one]);
          }}
        />
      ) : (
        <Row>
          <Button label={said.add} onPress={() => setOpen(true)} />
        </Row>
      )}
    </View>
  );
};

const styles = StyleSheet.create({
  field: { gap: 6 },
  one: { flexDirection: 'row', alignItems: 'center' },
  grow: { flex: 1 },
});
