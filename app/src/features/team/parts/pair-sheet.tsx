import type { NewPairing } from '@porch/contract/people';
import { useEffect } from 'react';
import { Image, StyleSheet, View } from 'react-native';
import { Copy, Done, Problem } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Sheet } from '../../../kit/sheets/sheet';
import { Text } from '../../../kit/text';
import { useAsTimeGoes } from '../../../shell/live/use-now';
import { problemOf } from '../../../shell/session/problems';
import { useAnswerPairing, useNewPairing, usePairing } from '../data/team';
import { words } from '../words';

const said = () => words().pair;
const CODE_PX = 240;

const Code = ({ made, left }: { made: NewPairing; left: number }) => (
  <>
    <Text>{said().more}</Text>
    <View role="img" aria-label={said().code}>
      <Image source={{ uri: made.picture }} style={styles.code} alt="" />
    </View>
    <Text kind="small" tone="slate">
      {said().left(left)}
    </Text>
    <Text kind="label">{said().orLink}</Text>
    <Copy text={made.link} label={said().copyLink} />
  </>
);

/** A code with which a phone signs in without a password. */
export const PairSheet = ({ close }: { close: () => void }) => {
  const make = useNewPairing();
  const { mutate: makeNew, data: made } = make;
  const { data: pairing } = usePairing(made?.id ?? null);
  const answer = useAnswerPairing(made?.id ?? null);
  useEffect(() => makeNew(), [makeNew]);
  const endsAt = made?.expiresAt ?? 0;
  const left = useAsTimeGoes((now) => Math.max(0, Math.ceil((endsAt - now) / 1_000)));
  const state = pairing?.state ?? 'waiting';
  return (
    <Sheet title={said().title} close={close}>
      <Problem text={problemOf(make.error ?? answer.error)} />
      {made && state === 'waiting' ? <Code made={made} left={left} /> : null}
      {state === 'asking' && pairing ? (
        <View role="alert" style={styles.asks}>
          <Text>{said().asks}</Text>
          <Text kind="large">{pairing.words}</Text>
          <Button look="main" label={said().same} onPress={() => answer.mutate(true)} />
          <Button tone="brick" label={said().other} onPress={() => answer.mutate(false)} />
        </View>
      ) : null}
      {state === 'done' ? <Done text={said().done} /> : null}
      {state === 'refused' ? <Problem text={said().refused} /> : null}
      {state === 'stale' ? <Problem text={said().stale} /> : null}
      {state === 'refused' || state === 'stale' ? (
        <Button label={said().again} onPress={() => makeNew()} />
      ) : null}
    </Sheet>
  );
};

const styles = StyleSheet.create({
  // Codes are read on white, by night too.
  code: { width: CODE_PX, height: CODE_PX, alignSelf: 'center', backgroundColor: '#ffffff' },
  asks: { gap: 12 },
});
