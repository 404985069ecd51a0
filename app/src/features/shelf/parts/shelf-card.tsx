import type { FileMention, ShelfSaid } from '@porch/core/conversation';
import { shownLink } from '@porch/core/links/web';
import FileDown from 'lucide-react-native/icons/file-down';
import type { ReactNode } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { Photo } from '../../../kit/drawn/photo';
import { Text } from '../../../kit/text';
import { corner } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { fileAddress } from '../../../shell/pictures/addresses';

const link = (href: string) => ({
  href,
  hrefAttrs: { target: '_blank', rel: 'noopener noreferrer' },
});

const Calendar = ({ file }: { file: FileMention }) => {
  const theme = useTheme();
  return (
    <Pressable
      role="link"
      {...{ href: fileAddress(file.id, 'whole'), hrefAttrs: { download: file.name } }}
      style={styles.file}
    >
      <FileDown size={18} color={theme.ink} aria-hidden />
      <Text kind="second" style={styles.link}>
        {file.name}
      </Text>
    </Pressable>
  );
};

/** Something of the shelf as it was said, or as it will be. `lines`: so many of its lines; absent: all. */
export const ShelfCard = ({
  said,
  lines,
  children,
}: {
  said: ShelfSaid;
  lines?: number;
  children?: ReactNode;
}) => {
  const theme = useTheme();
  const picture = said.files.find((file) => file.picture);
  const others = said.files.filter((file) => !file.picture);
  return (
    <View style={[styles.card, { borderColor: theme.seam, backgroundColor: theme.paper }]}>
      {picture ? (
        <Photo source={fileAddress(picture.id, 'thumbnail')} alt="" style={styles.photo} />
      ) : null}
      <View style={styles.words}>
        <Text kind="label" {...{ dir: 'auto' }}>
          {said.name}
        </Text>
        {said.lines.slice(0, lines).map((line) => (
          <Text key={line} kind="second" numberOfLines={lines ? 1 : undefined} {...{ dir: 'auto' }}>
            {line}
          </Text>
        ))}
        {said.link && !lines ? (
          <Text
            kind="second"
            role="link"
            numberOfLines={1}
            style={styles.link}
            {...link(said.link)}
          >
            {said.linkWords || shownLink(said.link)}
          </Text>
        ) : null}
        {lines ? null : others.map((file) => <Calendar key={file.id} file={file} />)}
      </View>
      {children}
    </View>
  );
};

const styles = StyleSheet.create({
  card: {
    flexDirection: 'row',
    alignItems: 'flex-start',
    gap: 10,
    padding: 10,
    borderWidth: 1,
    borderRadius: corner,
  },
  photo: { width: 64, height: 64, objectFit: 'cover', borderRadius: corner } as never,
  words: { flex: 1, gap: 2 },
  link: { textDecorationLine: 'underline' },
  file: { flexDirection: 'row', alignItems: 'center', gap: 6, minHeight: 24 },
});
