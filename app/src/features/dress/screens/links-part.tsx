import { DRESS_LIMITS, linkGlyphs, type PlaceLink } from '@porch/core/dress';
import { nanoid } from 'nanoid';
import { StyleSheet, View } from 'react-native';
import { Choice } from '../../../kit/fields/choice';
import { Problem, Row } from '../../../kit/fields/form';
import { FreshField } from '../../../kit/fields/fresh-field';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { corner } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { words } from '../words';
import type { Editing } from './editor';

const said = () => words().links;

const LinkCard = (props: {
  link: PlaceLink;
  problemAt: (field: string) => string;
  change: (link: PlaceLink) => void;
  drop: () => void;
}) => {
  const theme = useTheme();
  const { link, change, problemAt } = props;
  return (
    <View style={[styles.card, { borderColor: theme.edge }]}>
      <FreshField
        label={said().label}
        value={link.label}
        maxLength={200}
        problem={problemAt(`links.${link.id}`)}
        onChangeText={(label) => change({ ...link, label })}
      />
      <FreshField
        label={said().url}
        value={link.url}
        placeholder="https://"
        inputMode="url"
        autoCapitalize="none"
        maxLength={600}
        problem={problemAt(`links.${link.id}.url`)}
        onChangeText={(url) => change({ ...link, url })}
      />
      <Choice
        label={said().glyph}
        options={linkGlyphs.map((glyph) => [glyph, said().glyphs[glyph]] as const)}
        value={link.glyph}
        onChange={(glyph) => change({ ...link, glyph })}
      />
      <Row>
        <Button look="bare" label={said().drop(link.label)} onPress={props.drop} />
      </Row>
    </View>
  );
};

/** Plain links to other places, shown in the panel. */
export const LinksPart = ({ dress, set, problemAt }: Editing) => {
  const { links } = dress;
  const put = (next: PlaceLink[]): void => set({ ...dress, links: next });
  const fresh = (): PlaceLink => ({ id: nanoid(), glyph: 'page', label: '', url: '' });
  return (
    <>
      <Text kind="second" tone="slate">
        {said().more(DRESS_LIMITS.linksMost)}
      </Text>
      {links.map((link) => (
        <LinkCard
          key={link.id}
          link={link}
          problemAt={problemAt}
          change={(next) => put(links.map((one) => (one.id === link.id ? next : one)))}
          drop={() => put(links.filter(({ id }) => id !== link.id))}
        />
      ))}
      <Problem text={problemAt('links')} />
      {links.length < DRESS_LIMITS.linksMost ? (
        <Row>
          <Button label={said().add} onPress={() => put([...links, fresh()])} />
        </Row>
      ) : null}
    </>
  );
};

const styles = StyleSheet.create({
  card: { gap: 10, padding: 12, borderWidth: 1, borderRadius: corner },
});
