import type { FileMention } from '@porch/core/conversation';
import { useMutation } from '@tanstack/react-query';
import X from 'lucide-react-native/icons/x';
import { nanoid } from 'nanoid';
import { StyleSheet, View } from 'react-native';
import { Photo } from '../../kit/drawn/photo';
import { Problem, Row } from '../../kit/fields/form';
import { Button, GlyphButton } from '../../kit/press';
import { Text } from '../../kit/text';
import { useTheme } from '../../kit/theme/use-theme';
import { api } from '../session/api';
import { problemOf } from '../session/problems';
import { shellWords } from '../words';
import { fileAddress } from './addresses';
import { chooseFiles } from './file-chooser';

/** Pictures that go with something that is stored; each is with the house as soon as it is added. */
export const PicturesField = <One extends Pick<FileMention, 'id' | 'name'>>(props: {
  pictures: readonly One[];
  most: number;
  /** Said where there are as many as there may be. */
  mostWords: string;
  change: (pictures: (One | FileMention)[]) => void;
}) => {
  const theme = useTheme();
  const said = shellWords().pictures;
  const upload = useMutation({
    mutationFn: (file: File): Promise<FileMention> => api.upload(nanoid(), file.name, file),
  });
  const { pictures } = props;
  const add = (): void =>
    chooseFiles(
      ([file]) =>
        file &&
        upload.mutate(file, { onSuccess: (mention) => props.change([...pictures, mention]) }),
      { accept: 'image/*' },
    );
  return (
    <View role="group" aria-label={said.label} style={styles.field}>
      <Text kind="label">{said.label}</Text>
      <Row>
        {pictures.map((picture) => (
          <View key={picture.id} style={styles.picture}>
            <Photo
              source={fileAddress(picture.id, 'thumbnail')}
              alt={picture.name}
              style={styles.photo}
            />
            <GlyphButton
              label={said.takeOut(picture.name)}
              onPress={() => props.change(pictures.filter((one) => one !== picture))}
            >
              <X size={20} color={theme.ink} aria-hidden />
            </GlyphButton>
          </View>
        ))}
        {pictures.length < props.most ? (
          <Button label={said.add} disabled={upload.isPending} onPress={add} />
        ) : (
          <Text kind="second" tone="slate">
            {props.mostWords}
          </Text>
        )}
      </Row>
      <Problem text={problemOf(upload.error)} />
    </View>
  );
};

const styles = StyleSheet.create({
  field: { gap: 6 },
  picture: { flexDirection: 'row', alignItems: 'center' },
  photo: { width: 72, height: 72 },
});
