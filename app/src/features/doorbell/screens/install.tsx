import { View } from 'react-native';
import { Row, Section } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Steps } from '../../../kit/steps';
import { Text } from '../../../kit/text';
import { HousePage } from '../../../shell/frame/house-page';
import { install, useInstalling } from '../../../shell/session/installing';
import { type Platform, platform } from '../../../shell/session/platform';
import { words } from '../words';

const platforms: readonly Platform[] = [
  'iphone',
  'android',
  'desktop-installs',
  'desktop-dock',
  'desktop-none',
];

const StepsFor = ({ on }: { on: Platform }) => {
  const { title, steps, more } = words().install.steps[on];
  return (
    <View role="group" aria-label={title} style={{ gap: 10 }}>
      <Text kind="label">{title}</Text>
      <Steps steps={steps} />
      <Text kind="second" tone="slate">
        {more}
      </Text>
    </View>
  );
};

/** How the app comes onto the home screen: for the device in hand first. */
export const Install = () => {
  const here = platform();
  const { isInstalled, prompt } = useInstalling();
  const said = words().install;
  return (
    <HousePage title={said.title} isBehind>
      <Text>{said.lead}</Text>
      <Section title={said.here}>
        {isInstalled ? (
          <Text tone="moss">{said.done}</Text>
        ) : (
          <>
            {prompt ? (
              <Row>
                <Button look="main" label={said.now} onPress={() => void install()} />
              </Row>
            ) : null}
            <StepsFor on={here} />
          </>
        )}
      </Section>
      <Section title={said.others}>
        {platforms
          .filter((one) => one !== here)
          .map((one) => (
            <StepsFor key={one} on={one} />
          ))}
      </Section>
    </HousePage>
  );
};
