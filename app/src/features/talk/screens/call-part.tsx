import type { FileMention } from '@porch/core/conversation';
import { createElement } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from '../../../kit/text';
import { fileAddress } from '../../../shell/pictures/addresses';
import { words } from '../words';

/** A call that nobody came to: what was spoken can be heard, and whoever called can be called back. */
export const CallPart = (props: { seconds: number; phone: string }) => {
  const said = words().call;
  return (
    <View style={styles.call}>
      <Text kind="label">{props.seconds > 0 ? said.spoken(props.seconds) : said.missed}</Text>
      {props.phone ? (
        <Text role="link" style={styles.link} {...{ href: `tel:${props.phone}` }}>
          {said.back(props.phone)}
        </Text>
      ) : (
        <Text kind="second" tone="slate">
          {said.noNumber}
        </Text>
      )}
    </View>
  );
};

/** Somebody wants to be called; `time`: when, in words, null: as soon as somebody can. */
export const CallBackPart = (props: { phone: string; time: string | null }) => {
  const said = words().call;
  return (
    <View style={styles.call}>
      <Text kind="label">{said.asked(props.phone, props.time)}</Text>
      <Text role="link" style={styles.link} {...{ href: `tel:${props.phone}` }}>
        {said.now(props.phone)}
      </Text>
    </View>
  );
};

/** A sound, played where it stands. */
export const Sound = ({ file }: { file: FileMention }) =>
  createElement('audio', {
    controls: true,
    preload: 'none',
    src: fileAddress(file.id, 'whole'),
    'aria-label': words().call.sound(file.name),
    // By night its own controls are dark as well.
    style: { width: '100%', maxWidth: 320, height: 48, colorScheme: 'light dark' },
  });

const styles = StyleSheet.create({
  call: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 12 },
  link: { textDecorationLine: 'underline', minHeight: 48, lineHeight: 48 },
});
