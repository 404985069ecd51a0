import { useState } from 'react';
import { View } from 'react-native';
import { Button } from '../press';
import { Text } from '../text';
import { Problem, Row } from './form';

/** Something that cannot be undone: a tap asks first, and says what will be gone. `problem`: why it was not done. */
export const AskFirst = (props: {
  words: { begin: string; ask: string; confirm: string; leave: string };
  isBusy: boolean;
  problem: string;
  run: (done: () => void) => void;
}) => {
  const [isAsked, setAsked] = useState(false);
  const { begin, ask, confirm, leave } = props.words;
  return isAsked ? (
    <View role="alert">
      <Text tone="brick">{ask}</Text>
      <Row>
        <Button
          tone="brick"
          label={confirm}
          disabled={props.isBusy}
          onPress={() => props.run(() => setAsked(false))}
        />
        <Button look="bare" label={leave} onPress={() => setAsked(false)} />
      </Row>
      <Problem text={props.problem} />
    </View>
  ) : (
    <Row>
      <Button look="bare" tone="brick" label={begin} onPress={() => setAsked(true)} />
    </Row>
  );
};
