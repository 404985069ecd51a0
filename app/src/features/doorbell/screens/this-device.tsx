import type { MyDoorbell } from '@porch/contract/doorbell';
import { router } from 'expo-router';
import { View } from 'react-native';
import { Problem, Row, Section } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Steps } from '../../../kit/steps';
import { Text } from '../../../kit/text';
import { momentInWords, spanInWords } from '../../../kit/times';
import { serverNow } from '../../../shell/live/store';
import { SECOND_MS, useNow } from '../../../shell/live/use-now';
import { useHouse, useZone } from '../../../shell/session/house';
import { platform } from '../../../shell/session/platform';
import { problemOf } from '../../../shell/session/problems';
import { whyInWords } from '../../../shell/words/why';
import { ARRIVES_WITHIN_MS, useNewKeys, useTrialRing } from '../data/doorbell';
import {
  NoPushService,
  NotAllowed,
  useAllow,
  usePermission,
  useThisDeviceId,
} from '../data/this-device';
import { words } from '../words';

const said = () => words().here;

/** A real ring, and how far it came. */
const RingNow = ({ deviceId }: { deviceId: string }) => {
  const now = useNow(SECOND_MS);
  const zone = useZone();
  const { begin, trial } = useTrialRing(deviceId, serverNow);
  const at = (moment: number): string => momentInWords(moment, now, zone);
  const isLate =
    trial !== null &&
    trial.takenAt !== null &&
    !trial.arrivedAt &&
    now - trial.sentAt > ARRIVES_WITHIN_MS;
  return (
    <View role="group" aria-label={said().ringNow} style={{ gap: 8 }}>
      <Row>
        <Button
          look="main"
          label={said().ringNow}
          disabled={begin.isPending}
          onPress={() => begin.mutate()}
        />
      </Row>
      {trial ? (
        <View role="status" style={{ gap: 2 }}>
          <Text kind="second" tone="slate">
            {said().sent(at(trial.sentAt))}
          </Text>
          {trial.takenAt === null ? null : (
            <Text kind="second" tone="slate">
              {said().taken(at(trial.takenAt))}
            </Text>
          )}
          {trial.arrivedAt === null ? null : (
            <Text tone="moss">
              {said().arrived(at(trial.arrivedAt), spanInWords(trial.arrivedAt - trial.sentAt))}
            </Text>
          )}
          {trial.why || trial.arrivedAt || isLate ? null : (
            <Text kind="second">{said().waiting}</Text>
          )}
        </View>
      ) : null}
      <Problem
        text={
          trial?.why ? whyInWords(trial.why) : isLate ? said().notArrived : problemOf(begin.error)
        }
      />
    </View>
  );
};

const Sealed = () => {
  const isOwner = useHouse().data?.me?.role === 'owner';
  const { mutate, error } = useNewKeys();
  return (
    <>
      <Text tone="brick">{said().sealed}</Text>
      {isOwner ? (
        <Row>
          <Button label={said().newKey} onPress={() => mutate()} />
        </Row>
      ) : null}
      <Problem text={problemOf(error)} />
    </>
  );
};

const allowProblem = (error: Error | null): string => {
  if (error instanceof NotAllowed) return said().notNow;
  return error instanceof NoPushService ? said().noService : problemOf(error);
};

const Allow = ({ publicKey }: { publicKey: string }) => {
  const { mutate, error, isPending } = useAllow();
  return (
    <>
      <Text>{said().ask}</Text>
      <Row>
        <Button
          look="main"
          label={said().allow}
          disabled={isPending}
          onPress={() => mutate(publicKey)}
        />
      </Row>
      <Problem text={allowProblem(error)} />
    </>
  );
};

const Inside = ({ known }: { known: MyDoorbell }) => {
  const permission = usePermission();
  const id = useThisDeviceId();
  const mine = known.devices.find((device) => device.id === id);
  if (permission === 'cannot') return <Text>{said().cannot}</Text>;
  if (permission === 'install-first') {
    return (
      <>
        <Text>{said().installFirst}</Text>
        <Row>
          <Button
            look="main"
            label={said().install}
            onPress={() => router.navigate('/house/install')}
          />
        </Row>
      </>
    );
  }
  if (permission === 'denied') {
    return (
      <>
        <Text>{said().denied}</Text>
        <Steps steps={said().undo[platform()]} />
      </>
    );
  }
  if (known.publicKey === null) return <Sealed />;
  if (permission === 'ask' || !mine) return <Allow publicKey={known.publicKey} />;
  return (
    <>
      <Text tone={mine.isMuted ? 'ink' : 'moss'}>{mine.isMuted ? said().muted : said().rings}</Text>
      <RingNow deviceId={mine.id} />
    </>
  );
};

/** Whether this very device rings, how it comes to, and a ring to try it. */
export const ThisDevice = ({ known }: { known: MyDoorbell }) => (
  <Section title={said().title}>
    <Inside known={known} />
  </Section>
);
