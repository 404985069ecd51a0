import type { Door } from '@porch/contract/team';
import { useState } from 'react';
import { Linking, StyleSheet, View } from 'react-native';
import { Choice } from '../../parts/choice';
import { Copy, Row } from '../../parts/form';
import { Button } from '../../parts/press';
import { Words } from '../../parts/words';
import { words } from '../../wording';

const said = words.door;

type Way = 'builder' | 'html' | 'link';
const steps = { builder: said.builderSteps, html: said.htmlSteps, link: said.linkSteps };

/** How a door gets onto a website, in the way that fits it: what to copy, and where it goes. */
export const PutUp = ({ door }: { door: Door }) => {
  const [way, setWay] = useState<Way>('builder');
  return (
    <View style={styles.putUp}>
      <Choice
        label={said.ways}
        options={[
          ['builder', said.builder],
          ['html', said.html],
          ['link', said.link],
        ]}
        value={way}
        onChange={setWay}
      />
      {way === 'link' ? (
        <>
          <Copy text={door.link} label={said.copyLink} />
          <Row>
            <Button
              look="bare"
              role="link"
              label={said.openLink}
              onPress={() => void Linking.openURL(door.link)}
            />
          </Row>
        </>
      ) : (
        <Copy text={door.snippet} label={said.copy} isCode />
      )}
      <View role="list" style={styles.steps}>
        {steps[way].map((step, index) => (
          <View key={step} role="listitem" style={styles.step}>
            <Words kind="label">{`${index + 1}`}</Words>
            <Words kind="second" style={styles.grow}>
              {step}
            </Words>
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
