import { router } from 'expo-router';
import Circle from 'lucide-react-native/icons/circle';
import { type ReactNode, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Row } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { WayRow } from '../../../kit/way-row';
import { useHouse } from '../../../shell/session/house';
import { PairSheet } from '../../team/parts/pair-sheet';
import { useWatchedHouse } from '../data/checklist';
import { stepsLeft } from '../data/steps-left';
import { words } from '../words';

/**
 * In an empty line: what is left of setting up, each step one tap away. `otherwise`: what stands there once all of it is
 * done, and for whoever has nothing to set up.
 */
export const SetupLeft = ({ otherwise }: { otherwise: ReactNode }) => {
  const theme = useTheme();
  const [isPairing, setPairing] = useState(false);
  useWatchedHouse();
  const { data: house } = useHouse();
  const left = house ? stepsLeft(house) : [];
  if (left.length === 0) return otherwise;
  const said = words().setupLeft;
  return (
    <ScrollView contentContainerStyle={styles.whole}>
      <View style={styles.head}>
        <Text kind="title" role="heading" aria-level={2}>
          {said.title}
        </Text>
        <Text tone="slate">{said.more(left.length)}</Text>
      </View>
      {house?.business && house.business.walkStep !== 'done' ? (
        <Row>
          <Button look="main" label={said.resume} onPress={() => router.navigate('/walk')} />
        </Row>
      ) : null}
      <View role="list" aria-label={said.title}>
        {left.map(({ step, to }) => {
          const [title, more] = said.steps[step];
          return (
            <View key={step} role="listitem">
              <WayRow
                title={title}
                more={more}
                icon={<Circle size={22} color={theme.slate} aria-hidden />}
                to={to ?? (() => setPairing(true))}
              />
            </View>
          );
        })}
      </View>
      {isPairing ? <PairSheet close={() => setPairing(false)} /> : null}
    </ScrollView>
  );
};

const styles = StyleSheet.create({
  whole: { padding: 16, gap: 12, maxWidth: 620 },
  head: { gap: 4 },
});
