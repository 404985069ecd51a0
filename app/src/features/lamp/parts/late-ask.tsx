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
        isWide ? styles.across : styles.below,
        { borderColor: theme.ink, backgroundColor: theme.paper },
      ]}
    >
      <Text style={isWide ? styles.grow : null}>
        {said.since(momentInWords(ask.since, now, zone))}
      </Text>
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
  ask: { gap: 8, paddingHorizontal: 12, paddingVertical: 8 },
  across: {
    flexDirection: 'row',
    alignItems: 'center',
    paddingHorizontal: 20,
    borderBottomWidth: 2,
  },
  below: {
    marginHorizontal: 12,
    marginTop: 4,
    paddingVertical: 12,
    borderWidth: 2,
    borderRadius: 4,
  },
  grow: { flex: 1 },
});
