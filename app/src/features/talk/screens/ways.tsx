import type { Row, Thread } from '@porch/contract/entries';
import { StyleSheet, View } from 'react-native';
import { Choice } from '../../../kit/fields/choice';
import { Text } from '../../../kit/text';
import { words } from '../words';
import type { RouteShown } from './route-shown';

/** The ways by which somebody can be answered, where there are several, and the one that is taken. */
export const Ways = (props: {
  row: Row;
  chosen: Thread;
  /** It is still to be said. */
  isUnclear: boolean;
  nameOf: (thread: Thread) => string;
  routeOf: (thread: Thread) => RouteShown;
  choose: (threadId: string) => void;
}) => {
  const { row, chosen, nameOf, routeOf } = props;
  if (row.threads.length < 2) return null;
  const said = words().ways;
  const isShut = routeOf(chosen).isShut;
  const open = row.threads.filter((thread) => !routeOf(thread).isShut);
  return (
    <View style={styles.ways}>
      <Choice
        label={said.title}
        options={row.threads.map((thread) => [
          thread.id,
          routeOf(thread).isShut ? said.shut(nameOf(thread)) : nameOf(thread),
        ])}
        value={props.isUnclear ? '' : chosen.id}
        onChange={props.choose}
      />
      {props.isUnclear ? (
        <Text kind="small" tone="ember" role="status">
          {said.byCode(nameOf(chosen))}
        </Text>
      ) : null}
      {isShut && open.length > 0 ? (
        <Text kind="small" tone="ember">
          {said.others(open.map(nameOf).join(', '))}
        </Text>
      ) : null}
    </View>
  );
};

const styles = StyleSheet.create({ ways: { gap: 4 } });
