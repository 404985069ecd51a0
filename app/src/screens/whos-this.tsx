import type { Row } from '@porch/contract/entries';
import { ScrollView, StyleSheet, View } from 'react-native';
import { useDoorName, useZone } from '../data/house';
import { Words } from '../parts/words';
import { useTheme } from '../theme/use-theme';
import { words } from '../wording';
import { momentInWords } from '../wording/times';

const Fact = ({ label, said, href }: { label: string; said: string; href?: string }) => (
  <View style={styles.fact}>
    <Words kind="small" tone="slate">
      {label}
    </Words>
    {href ? (
      <Words role="link" style={styles.link} {...{ href }}>
        {said}
      </Words>
    ) : (
      <Words>{said}</Words>
    )}
  </View>
);

/** What is known of whoever writes: only what they said themselves, and where they are. */
export const WhosThis = ({ row, now, isColumn }: { row: Row; now: number; isColumn: boolean }) => {
  const theme = useTheme();
  const zone = useZone();
  const doorName = useDoorName(row.doorId);
  const { state } = row;
  const said = words.who;
  const left =
    state.movedAt === null ? said.never : said.gone(momentInWords(state.movedAt, now, zone));
  const page = state.page;
  return (
    <ScrollView
      role={isColumn ? 'complementary' : undefined}
      aria-label={isColumn ? said.title : undefined}
      style={isColumn ? [styles.column, { borderColor: theme.seam }] : undefined}
      contentContainerStyle={isColumn ? styles.inside : styles.insideSheet}
    >
      {isColumn ? (
        <Words kind="title" role="heading" aria-level={2}>
          {said.title}
        </Words>
      ) : null}
      <Fact label={said.name} said={state.name || words.line.nameless} />
      <Fact
        label={said.email}
        said={state.email || said.nothing}
        href={state.email ? `mailto:${state.email}` : undefined}
      />
      <Fact
        label={said.phone}
        said={state.phone || said.nothing}
        href={state.phone ? `tel:${state.phone.replace(/[^\d+]/g, '')}` : undefined}
      />
      {state.own.map(({ id, label, value }) => (
        <Fact key={id} label={label} said={value} />
      ))}
      <Fact label={said.presence} said={state.isHere ? said.here : left} />
      {page ? <Fact label={said.page} said={page.title || page.url} href={page.url} /> : null}
      <Fact label={said.first} said={momentInWords(state.firstAt, now, zone)} />
      <Fact label={said.last} said={momentInWords(state.lastAt, now, zone)} />
      <Fact
        label={said.door}
        said={[words.conversation.website, doorName].filter(Boolean).join(' · ')}
      />
    </ScrollView>
  );
};

const styles = StyleSheet.create({
  column: {
    flexGrow: 0,
    flexShrink: 0,
    flexBasis: '31%',
    minWidth: 200,
    maxWidth: 280,
    borderLeftWidth: 1,
  },
  inside: { padding: 20, gap: 16 },
  insideSheet: { gap: 16 },
  fact: { gap: 2 },
  link: { textDecorationLine: 'underline' },
});
