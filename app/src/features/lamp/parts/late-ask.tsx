import { router } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { Row } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { useWide } from '../../../kit/theme/use-wide';
import { momentInWords } from '../../../kit/times';
import { serverNow, useLive } from '../../../shell/live/store';
import { MINUTE_MS, useNow } from '../../../shell/live/use-now';
import { useZone } from '../../../shell/session/house';
import { useAnswerAsk, useSetLamp } from '../data/lamp';
import { words } from '../words';

const SOON_MS = 30 * MINUTE_MS;

/** Somebody has waited too long and nobody has looked: asks once whether the light should say "back soon". */
export const LateAsk = () => {
  const theme = useTheme();
  const isWide = useWide();
  const zone = useZone();
  const now = useNow(MINUTE_MS);
  const ask = useLive(({ lamp }) => lamp?.ask ?? null);
  const { mutate: setLamp } = useSetLamp();
  const { mutate: leave } = useAnswerAsk();
  if (!ask) return null;
  const said = words().late;
  return (
    <View
      role="alert"
      style={[
        styles.ask,
        isWide ? styles.hanging : null,
        { borderColor: theme.ink, backgroundColor: theme.paper },
      ]}
    >
      <Text>{said.since(momentInWords(ask.since, now, zone))}</Text>
      <Row>
        <Button label={said.look} onPress={() => router.navigate(`/line/${ask.conversationId}`)} />
        <Button
          label={said.soon}
          onPress={() => setLamp({ state: 'back-soon', until: serverNow() + SOON_MS })}
        />
        <Button look="bare" label={said.leave} onPress={() => leave()} />
      </Row>
    </View>
  );
};

const styles = StyleSheet.create({
  ask: { gap: 8, padding: 12, marginTop: 8, borderWidth: 2, borderRadius: 4 },
  // Under the beam, which keeps its height.
  hanging: { position: 'absolute', top: '100%', left: 0, width: 440 },
});
