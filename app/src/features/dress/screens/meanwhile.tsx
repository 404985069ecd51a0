import type { Clash, Path } from '@porch/core/dress';
import { StyleSheet, View } from 'react-native';
import { Row } from '../../../kit/fields/form';
import { languageName } from '../../../kit/names';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { corner } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import type { Work, Workbench } from '../data/workbench';
import { words } from '../words';

/** What the parts of a dress are called. */
const namesNow = (): Record<string, string> => {
  const { parts, look, texts, where, guestBook } = words();
  return {
    look: parts.look,
    people: parts.people,
    texts: parts.texts,
    where: parts.where,
    guestBook: parts.guestBook,
    ground: look.ground,
    accent: look.accent,
    side: look.side,
    sidePx: look.sidePx,
    bottomPx: look.bottomPx,
    plate: look.plate,
    face: look.face,
    textSize: look.textSize,
    fallback: texts.fallback,
    pages: where.pages,
    countries: where.countries,
    onSmallScreens: where.small,
    manners: where.manners,
    lit: guestBook.pages.lit,
    notLit: guestBook.pages.notLit,
    whenNotLit: guestBook.notLit,
    own: guestBook.own,
    consent: guestBook.consent,
  };
};

/** Where something stands, as the screen calls it: "Texts, German, Heading". */
const placeName = (path: Path): string => {
  const names = namesNow();
  const kinds: Record<string, string> = words().texts.labels;
  return path
    .map((key, index) => {
      if (path[0] === 'texts' && index === 1) return languageName(key);
      return names[key] ?? kinds[key.split('.')[0] ?? ''] ?? key;
    })
    .join(', ');
};

const asText = (value: unknown): string =>
  typeof value === 'string' || typeof value === 'number' ? `${value}` : JSON.stringify(value);

const ClashChoice = ({ clash, bench }: { clash: Clash; bench: Workbench }) => (
  <View role="group" aria-label={placeName(clash.path)} style={styles.clash}>
    <Text kind="label">{placeName(clash.path)}</Text>
    <Row>
      <Button
        label={`${words().mine}: ${asText(clash.mine)}`}
        onPress={() => bench.settle(clash, 'mine')}
      />
      <Button
        label={`${words().theirs}: ${asText(clash.theirs)}`}
        onPress={() => bench.settle(clash, 'theirs')}
      />
    </Row>
  </View>
);

/** What somebody else changed while this was open; nothing of either is lost. */
export const Meanwhile = ({ work, bench }: { work: Work; bench: Workbench }) => {
  const theme = useTheme();
  const { meanwhile, clashes } = work;
  if (!meanwhile) return null;
  return (
    <View role="alert" style={[styles.note, { borderColor: theme.ember }]}>
      <Text kind="label">{words().meanwhile(meanwhile.who)}</Text>
      {meanwhile.taken.length > 0 ? (
        <Text kind="second">{words().taken(meanwhile.taken.map(placeName).join(' · '))}</Text>
      ) : null}
      {clashes.length > 0 ? <Text kind="second">{words().clash}</Text> : null}
      {clashes.map((clash) => (
        <ClashChoice key={clash.path.join('/')} clash={clash} bench={bench} />
      ))}
    </View>
  );
};

const styles = StyleSheet.create({
  note: { gap: 8, padding: 12, borderWidth: 2, borderRadius: corner },
  clash: { gap: 6 },
});
