import { FILE_LIMITS } from '@porch/core/files';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Problem, Row } from '../../kit/fields/form';
import { Button } from '../../kit/press';
import { Text } from '../../kit/text';
import { shellWords } from '../words';
import { CropSheet } from './crop-sheet';
import type { Cut } from './cutting';
import { Face } from './face';
import { chooseFiles } from './file-chooser';

/** A picture that can be chosen, cut, and taken away again. */
export const PictureField = (props: {
  label: string;
  name: string;
  pictureId: string | null;
  shape: 'round' | 'square';
  problem: string;
  set: (cut: Cut | null) => void;
}) => {
  const [chosen, setChosen] = useState<File | null>(null);
  const [isTooLarge, setTooLarge] = useState(false);
  const limit = FILE_LIMITS.largestBytes;
  const choose = (): void =>
    chooseFiles(
      ([file]) => {
        const fits = file !== undefined && file.size <= limit;
        setTooLarge(file !== undefined && !fits);
        setChosen(fits ? file : null);
      },
      { accept: 'image/*' },
    );
  return (
    <View style={styles.field}>
      <Text kind="label">{props.label}</Text>
      <Row>
        <Face name={props.name} pictureId={props.pictureId} shape={props.shape} size={72} />
        <Button
          label={props.pictureId ? shellWords().picture.change : shellWords().picture.choose}
          onPress={choose}
        />
        {props.pictureId ? (
          <Button look="bare" label={shellWords().picture.drop} onPress={() => props.set(null)} />
        ) : null}
      </Row>
      <Problem
        text={isTooLarge ? shellWords().refusal({ code: 'too-large', limit }) : props.problem}
      />
      {chosen ? (
        <CropSheet
          picture={chosen}
          shape={props.shape}
          close={() => setChosen(null)}
          take={(cut) => {
            setChosen(null);
            props.set(cut);
          }}
        />
      ) : null}
    </View>
  );
};

const styles = StyleSheet.create({ field: { gap: 8 } });
