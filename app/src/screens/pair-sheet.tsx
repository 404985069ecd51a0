import type { NewPairing } from '@porch/contract/team';
import { useEffect } from 'react';
import { Image, StyleSheet, View } from 'react-native';
import { useAnswerPairing, useNewPairing, usePairing } from '../data/team';
import { Copy, Done, Problem, problemOf } from '../parts/form';
import { Button } from '../parts/press';
import { Sheet } from '../parts/sheet';
import { useNow } from '../parts/use-now';
import { Words } from '../parts/words';
import { words } from '../wording';

const said = words.pair;
const CODE_PX = 240;

const Code = ({ made, left }: { made: NewPairing; left: number }) => (
  <>
    <Words>{said.more}</Words>
    <Image source={{ uri: made.picture }} style={styles.code} aria-label={said.code} />
    <Words kind="small" tone="slate">
      {said.left(left)}
    </Words>
    <Words kind="label">{said.orLink}</Words>
    <Copy text={made.link} label={words.door.copyLink} />
  </>
);

/** A code with which a phone signs in without a password. */
export const PairSheet = ({ close }: { close: () => void }) => {
  const now = useNow();
  const make = useNewPairing();
  const { mutate: makeNew, data: made } = make;
  const { data: pairing } = usePairing(made?.id ?? null);
  const answer = useAnswerPairing(made?.id ?? null);
  useEffect(() => makeNew(), [makeNew]);
  const left = made ? Math.max(0, Math.ceil((made.expiresAt - now) / 1_000)) : 0;
  const state = pairing?.state ?? 'waiting';
  return (
    <Sheet title={said.title} close={close}>
      <Problem text={problemOf(make.error ?? answer.error)} />
      {made && state === 'waiting' ? <Code made={made} left={left} /> : null}
      {state === 'asking' && pairing ? (
        <View role="alert" style={styles.asks}>
          <Words>{said.asks}</Words>
          <Words kind="large">{pairing.words}</Words>
          <Button look="main" label={said.same} onPress={() => answer.mutate(true)} />
          <Button tone="brick" label={said.other} onPress={() => answer.mutate(false)} />
        </View>
      ) : null}
      {state === 'done' ? <Done text={said.done} /> : null}
      {state === 'refused' ? <Problem text={said.refused} /> : null}
      {state === 'stale' ? <Problem text={said.stale} /> : null}
      {state === 'refused' || state === 'stale' ? (
        <Button label={said.again} onPress={() => makeNew()} />
      ) : null}
    </Sheet>
  );
};

const styles = StyleSheet.create({
  // Codes are read on white, by night too.
  code: { width: CODE_PX, height: CODE_PX, alignSelf: 'center', backgroundColor: '#ffffff' },
  asks: { gap: 12 },
});
