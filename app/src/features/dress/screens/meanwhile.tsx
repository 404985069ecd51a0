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

const said = () => words();

const names: Record<string, string> = {
  look: said().parts.look,
  people: said().parts.people,
  texts: said().parts.texts,
  where: said().parts.where,
  guestBook: said().parts.guestBook,
  ground: said().look.ground,
  accent: said().look.accent,
  side: said().look.side,
  sidePx: said().look.sidePx,
  bottomPx: said().look.bottomPx,
  plate: said().look.plate,
  face: said().look.face,
  textSize: said().look.textSize,
  fallback: said().texts.fallback,
  pages: said().where.pages,
  countries: said().where.countries,
  onSmallScreens: said().where.small,
  manners: said().where.manners,
  lit: said().guestBook.pages.lit,
  notLit: said().guestBook.pages.notLit,
  own: said().guestBook.own,
  consent: said().guestBook.consent,
};

const labels: Record<string, string> = said().texts.labels;

/** Where something stands, as the screen calls it: "Texts, German, Heading". */
const placeName = (path: Path): string =>
  path
    .map((key, index) => {
      if (path[0] === 'texts' && index === 1) return languageName(key);
      return names[key] ?? labels[key.split('.')[0] ?? ''] ?? key;
    })
    .join(', ');

const asText = (value: unknown): string =>
  typeof value === 'string' || typeof value === 'number' ? `${value}` : JSON.stringify(value);

const ClashChoice = ({ clash, bench }: { clash: Clash; bench: Workbench }) => (
  <View role="group" aria-label={placeName(clash.path)} style={styles.clash}>
    <Text kind="label">{placeName(clash.path)}</Text>
    <Row>
      <Button
        label={`${said().mine}: ${asText(clash.mine)}`}
        onPress={() => bench.settle(clash, 'mine')}
      />
      <Button
        label={`${said().theirs}: ${asText(clash.theirs)}`}
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
      <Text kind="label">{said().meanwhile(meanwhile.who)}</Text>
      {meanwhile.taken.length > 0 ? (
        <Text kind="second">{said().taken(meanwhile.taken.map(placeName).join(' · '))}</Text>
      ) : null}
      {clashes.length > 0 ? <Text kind="second">{said().clash}</Text> : null}
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
