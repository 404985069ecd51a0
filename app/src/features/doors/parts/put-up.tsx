import type { Door } from '@porch/contract/doors';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Choice } from '../../../kit/fields/choice';
import { Copy, Row } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { words } from '../words';

type Way = 'builder' | 'html' | 'link';
const stepsOf = (way: Way): readonly string[] => words()[`${way}Steps`];

/** How a door gets onto a website, in the way that fits it: what to copy, and where it goes. */
export const PutUp = ({ door }: { door: Door }) => {
  const [way, setWay] = useState<Way>('builder');
  return (
    <View style={styles.putUp}>
      <Choice
        label={words().ways}
        options={[
          ['builder', words().builder],
          ['html', words().html],
          ['link', words().link],
        ]}
        value={way}
        onChange={setWay}
      />
      {way === 'link' ? (
        <>
          <Copy text={door.link} label={words().copyLink} />
          <Row>
            <Button
              look="bare"
              role="link"
              label={words().openLink}
              {...{ href: door.link, hrefAttrs: { target: '_blank', rel: 'noopener' } }}
            />
          </Row>
        </>
      ) : (
        <Copy text={door.snippet} label={words().copy} isCode />
      )}
      <View role="list" style={styles.steps}>
        {stepsOf(way).map((step, index) => (
          <View key={step} role="listitem" style={styles.step}>
            <Text kind="label">{`${index + 1}`}</Text>
            <Text kind="second" style={styles.grow}>
              {step}
            </Text>
          </View>
        ))}
      </View>
    </View>
  );
};

const styles = StyleSheet.create({
  putUp: { gap: 14 },
  steps: { gap: 8 },
  step: { flexDirection: 'row', gap: 12 },
  grow: { flex: 1 },
});
