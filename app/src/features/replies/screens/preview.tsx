import type { Row } from '@porch/contract/entries';
import { fillIn } from '@porch/core/replies';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Select } from '../../../kit/fields/select';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { useCalling } from '../../persons/parts/calling';
import { useGapFacts } from '../data/facts';
import { useNewestPeople } from '../data/newest-people';
import { words } from '../words';

const NOBODY = '';
const noRows: Row[] = [];

/** The text as somebody real would read it. */
export const Preview = ({ text, language }: { text: string; language: string }) => {
  const theme = useTheme();
  const people = useNewestPeople().data ?? noRows;
  const { nameOf } = useCalling();
  const factsOf = useGapFacts();
  const [chosenId, choose] = useState<string | null>(null);
  const row = people.find(({ id }) => id === (chosenId ?? people[0]?.id)) ?? null;
  const { text: filled, stops } = fillIn(text, factsOf(row, language));
  const asked = stops.map(({ name }) => name);
  const said = words().editor;
  return (
    <View role="group" aria-label={said.preview} style={styles.preview}>
      <Text kind="name" role="heading" aria-level={2}>
        {said.preview}
      </Text>
      <Select
        label={said.previewFor}
        options={[
          ...people.map((one) => [one.id, nameOf(one)] as const),
          [NOBODY, said.previewNobody],
        ]}
        value={row?.id ?? NOBODY}
        onChange={choose}
      />
      <View style={[styles.slip, { borderColor: theme.ink }]}>
        <Text {...{ dir: 'auto' }}>{filled}</Text>
      </View>
      {asked.length > 0 ? (
        <Text kind="second" tone="ember">
          {said.previewOpen(asked.join(', '))}
        </Text>
      ) : null}
    </View>
  );
};

const styles = StyleSheet.create({
  preview: { gap: 12 },
  slip: { borderWidth: 2, padding: 12 },
});
