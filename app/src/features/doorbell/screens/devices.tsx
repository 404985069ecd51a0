import type { BellDevice } from '@porch/contract/doorbell';
import { StyleSheet, View } from 'react-native';
import { Problem, Section } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { momentInWords } from '../../../kit/times';
import { MINUTE_MS, useNow } from '../../../shell/live/use-now';
import { useZone } from '../../../shell/session/house';
import { problemOf } from '../../../shell/session/problems';
import { whyInWords } from '../../../shell/words/why';
import { useMute, useRemoveDevice } from '../data/doorbell';
import { leaveBell, useThisDeviceId } from '../data/this-device';
import { words } from '../words';

const said = () => words().devices;

const DeviceRow = ({ device, isThis }: { device: BellDevice; isThis: boolean }) => {
  const theme = useTheme();
  const zone = useZone();
  const now = useNow(MINUTE_MS);
  const mute = useMute();
  const remove = useRemoveDevice();
  const { id, name, isMuted, rungAt, failedAt, why } = device;
  const facts = [
    isThis ? said().this : '',
    isMuted ? said().muted : '',
    rungAt === null ? said().neverRung : said().rung(momentInWords(rungAt, now, zone)),
  ];
  return (
    <View role="listitem" style={[styles.device, { borderColor: theme.seam }]}>
      <View style={styles.facts}>
        <Text kind="label">{name}</Text>
        <Text kind="second" tone="slate">
          {facts.filter(Boolean).join(' · ')}
        </Text>
        {failedAt !== null && why ? (
          <Text kind="second" tone="brick">
            {said().failed(momentInWords(failedAt, now, zone), whyInWords(why))}
          </Text>
        ) : null}
        <Problem text={problemOf(mute.error ?? remove.error)} />
      </View>
      <View style={styles.deeds}>
        <Button
          look="bare"
          label={isMuted ? said().unmute : said().mute}
          aria-label={`${isMuted ? said().unmute : said().mute}: ${name}`}
          onPress={() => mute.mutate({ id, isMuted: !isMuted })}
        />
        <Button
          look="bare"
          tone="brick"
          label={said().remove}
          aria-label={`${said().remove}: ${name}`}
          onPress={() => {
            remove.mutate(id);
            if (isThis) leaveBell();
          }}
        />
      </View>
    </View>
  );
};

/** Every device of one's own that rings. */
export const Devices = ({ devices }: { devices: readonly BellDevice[] }) => {
  const thisId = useThisDeviceId();
  return (
    <Section title={said().title}>
      {devices.length === 0 ? (
        <Text kind="second" tone="slate">
          {said().none}
        </Text>
      ) : (
        <View role="list" aria-label={said().title}>
          {devices.map((device) => (
            <DeviceRow key={device.id} device={device} isThis={device.id === thisId} />
          ))}
        </View>
      )}
    </Section>
  );
};

const styles = StyleSheet.create({
  device: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'center',
    gap: 8,
    paddingVertical: 8,
    borderBottomWidth: 1,
  },
  facts: { flexGrow: 1, flexShrink: 1, flexBasis: 200 },
  deeds: { flexDirection: 'row', gap: 4 },
});
