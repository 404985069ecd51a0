import type { UseMutationResult } from '@tanstack/react-query';
import { StyleSheet, View } from 'react-native';
import { Problem, Row } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { problemOf } from '../../../shell/session/problems';
import { useDraft } from '../data/draft';
import { words } from '../words';

interface Bar {
  isChanged: boolean;
  isPending: boolean;
  isSaved: boolean;
  error: Error | null;
  save: () => void;
  drop: () => void;
}

/** What somebody changes at a place, how, and the bar by which it is saved; `save` writes it. */
export const useKeeping = <Kept,>(
  place: string,
  saved: Kept,
  save: UseMutationResult<unknown, Error, Kept>,
) => {
  const { draft, isChanged, set, drop } = useDraft(place, saved);
  const bar: Bar = {
    isChanged,
    isPending: save.isPending,
    isSaved: save.isSuccess,
    error: save.error,
    save: () => save.mutate(draft, { onSuccess: drop }),
    drop: () => {
      save.reset();
      drop();
    },
  };
  return {
    draft,
    change: (next: Kept): void => {
      save.reset();
      set(next);
    },
    bar,
  };
};

/** Says that something is not saved yet, and saves it or lets it go. */
export const SaveBar = (props: Bar) => {
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
