import type { ShelfSaid } from '@porch/core/conversation';
import { router } from 'expo-router';
import { useDeferredValue, useState } from 'react';
import { FlatList, Pressable, StyleSheet, View } from 'react-native';
import { Problem, Row } from '../../../kit/fields/form';
import { SearchField } from '../../../kit/fields/search-field';
import { Button } from '../../../kit/press';
import { useEscape } from '../../../kit/sheets/use-escape';
import { Text } from '../../../kit/text';
import { touch } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { useShelfNear } from '../data/shelf';
import { words } from '../words';
import { ShelfCard } from './shelf-card';

/** The shelf above the field: what was put in last first, found by a search, put in with a tap. */
export const ShelfTray = (props: {
  conversationId: string;
  take: (said: ShelfSaid) => void;
  close: () => void;
}) => {
  useEscape(props.close);
  const theme = useTheme();
  const [typed, setTyped] = useState('');
  const sought = useDeferredValue(typed.trim());
  const { data, isError } = useShelfNear(props.conversationId, sought);
  const said = words().tray;
  const isEmpty = data !== undefined && !data.isAny;
  return (
    <View role="region" aria-label={said.label} style={[styles.tray, { borderColor: theme.seam }]}>
      {isEmpty ? (
        <Text kind="second" tone="slate">
          {words().none.more}
        </Text>
      ) : (
        <SearchField label={words().find} value={typed} change={setTyped} />
      )}
      {isError && !data ? <Problem text={said.failed} /> : null}
      <FlatList
        data={data?.things ?? []}
        keyExtractor={({ id }) => id}
        keyboardShouldPersistTaps="handled"
        initialNumToRender={12}
        style={styles.list}
        ListEmptyComponent={
          sought && data ? <Text tone="slate">{words().foundNone(sought)}</Text> : null
        }
        renderItem={({ item }) => (
          <Pressable
            role="button"
            aria-label={said.take(item.name)}
            onPress={() => props.take(item)}
            style={styles.thing}
          >
            <ShelfCard said={item} lines={1} />
          </Pressable>
        )}
      />
      <Row>
        <Button
          look="bare"
          label={isEmpty ? words().add : said.all}
          onPress={() => router.navigate(isEmpty ? '/house/shelf/new' : '/house/shelf')}
        />
      </Row>
    </View>
  );
};

export const shelfNames = () => words().tray;
export const shelfGone = (name: string): string => words().chosen.gone(name);

const styles = StyleSheet.create({
  tray: { gap: 8, paddingVertical: 8, borderTopWidth: 1 },
  list: { maxHeight: 260 },
  thing: { minHeight: touch, paddingVertical: 4 },
});
