import { StyleSheet, View } from 'react-native';
import { Problem, Row } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { problemOf } from '../../../shell/session/problems';
import { words } from '../words';

/** Says that something is not saved yet, and saves it or lets it go. */
export const SaveBar = (props: {
  isChanged: boolean;
  isPending: boolean;
  isSaved: boolean;
  error: Error | null;
  save: () => void;
  drop: () => void;
}) => {
  const theme = useTheme();
  const said = words().save;
  if (!props.isChanged) {
    return props.isSaved ? (
      <Text tone="moss" role="status">
        {said.saved}
      </Text>
    ) : null;
  }
  const problem = problemOf(props.error);
  return (
    <View style={[styles.bar, { backgroundColor: theme.paper, borderColor: theme.ink }]}>
      <Text kind="second" role="status">
        {said.unsaved}
      </Text>
      <Problem text={problem ? `${problem} ${said.failed}` : ''} />
      <Row>
        <Button look="main" label={said.save} disabled={props.isPending} onPress={props.save} />
        <Button look="bare" label={said.drop} onPress={props.drop} />
      </Row>
    </View>
  );
};

const styles = StyleSheet.create({
  // It stays in sight while the page moves under it.
  bar: {
    position: 'sticky' as 'relative',
    bottom: 0,
    zIndex: 1,
    gap: 8,
    padding: 12,
    borderWidth: 2,
    borderRadius: 4,
  },
});
