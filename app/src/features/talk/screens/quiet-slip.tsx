import ChevronDown from 'lucide-react-native/icons/chevron-down';
import ChevronRight from 'lucide-react-native/icons/chevron-right';
import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { momentInWords } from '../../../kit/times';
import type { QuietItem } from '../data/items';
import { words } from '../words';
import type { RollFacts } from './roll-facts';
import { markInWords, RollEntry } from './roll-slips';
import { RungSlip, rungInBrief } from './rung-slip';

const inBrief = (item: QuietItem, facts: RollFacts): string => {
  if (item.is === 'rung') return rungInBrief(item.line, facts);
  const { entry } = item;
  const { now, zone } = facts;
  if (entry.kind !== 'waypoint') {
    return `${markInWords(entry, facts)} · ${momentInWords(entry.at, now, zone)}`;
  }
  const { title, host } = facts.pageOf(entry.page);
  return `${title || words().who.elsewhere(host)} · ${momentInWords(entry.at, now, zone)}`;
};

/** What went on between two messages, in one line: the newest of it, and how much more there is. A tap shows it all. */
export const QuietSlip = ({ items, facts }: { items: readonly QuietItem[]; facts: RollFacts }) => {
  const theme = useTheme();
  const [isOpen, setOpen] = useState(false);
  const newest = items.at(-1);
  if (!newest) return null;
  const said = words().conversation;
  const Chevron = isOpen ? ChevronDown : ChevronRight;
  const brief = inBrief(newest, facts);
  const more = items.length > 1 ? said.quietMore(items.length - 1) : '';
  return (
    <View>
      <Pressable
        role="button"
        aria-expanded={isOpen}
        aria-label={isOpen ? said.quietLess : [brief, more].filter(Boolean).join(', ')}
        onPress={() => setOpen(!isOpen)}
        hitSlop={8}
        style={styles.line}
      >
        <View style={styles.more}>
          <Chevron size={16} color={theme.slate} aria-hidden />
        </View>
        <Text kind="small" tone="slate" numberOfLines={1} style={styles.brief}>
          {isOpen ? said.quietLess : brief}
        </Text>
        {more && !isOpen ? (
          <Text kind="small" tone="slate" style={styles.more}>
            {more}
          </Text>
        ) : null}
      </Pressable>
      {isOpen
        ? items.map((item) =>
            item.is === 'rung' ? (
              <RungSlip key={item.key} line={item.line} facts={facts} />
            ) : (
              <RollEntry key={item.key} entry={item.entry} facts={facts} />
            ),
          )
        : null}
    </View>
  );
};

const styles = StyleSheet.create({
  line: {
    minHeight: 28,
    flexDirection: 'row',
    alignItems: 'center',
    gap: 6,
    paddingHorizontal: 20,
    paddingVertical: 2,
  },
  brief: { flexShrink: 1 },
  /** What is cut to make room is the words between. */
  more: { flexShrink: 0 },
});
