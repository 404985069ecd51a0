import { router } from 'expo-router';
import Plus from 'lucide-react-native/icons/plus';
import type { ReactElement, ReactNode } from 'react';
import { FlatList, StyleSheet, View } from 'react-native';
import { Row } from '../../kit/fields/form';
import { Button } from '../../kit/press';
import { Text } from '../../kit/text';
import { useTheme } from '../../kit/theme/use-theme';
import { HouseTop } from './house-page';

/** A place behind the House screen that lists what was stored there: how to add one, how to find one, and each. */
export const ListPage = <One,>(props: {
  title: string;
  more: string;
  add: { label: string; to: Parameters<typeof router.navigate>[0] };
  items: readonly One[];
  keyOf: (one: One) => string;
  row: (one: One) => ReactElement;
  /** How many there are, and by what one is found. */
  finding: ReactNode;
  /** What stands there instead of rows. */
  none: ReactElement | null;
  /** How it goes on after them; null: it does not. */
  next?: { label: string; isBusy: boolean; do: () => void } | null;
  foot: ReactNode;
}) => {
  const theme = useTheme();
  const { add, next } = props;
  return (
    <FlatList
      data={props.items}
      keyExtractor={props.keyOf}
      contentContainerStyle={styles.page}
      initialNumToRender={20}
      keyboardShouldPersistTaps="handled"
      renderItem={({ item }) => props.row(item)}
      ListHeaderComponent={
        <View style={styles.head}>
          <HouseTop title={props.title} isBehind />
          <Text tone="slate">{props.more}</Text>
          <Row>
            <Button
              look="main"
              icon={<Plus size={20} color={theme.onInk} aria-hidden />}
              label={add.label}
              onPress={() => router.navigate(add.to)}
            />
          </Row>
          {props.finding}
        </View>
      }
      ListEmptyComponent={props.none}
      ListFooterComponent={
        <View style={styles.foot}>
          {next ? (
            <Row>
              <Button label={next.label} disabled={next.isBusy} onPress={next.do} />
            </Row>
          ) : null}
          {props.foot}
        </View>
      }
    />
  );
};

const styles = StyleSheet.create({
  page: { padding: 16, maxWidth: 720, width: '100%', alignSelf: 'center' },
  head: { gap: 16, paddingBottom: 8 },
  foot: { gap: 20, paddingTop: 24 },
});
