import type { Row } from '@porch/contract/entries';
import { type Group, groups } from '@porch/core/conversation';
import { router, useGlobalSearchParams } from 'expo-router';
import ChevronDown from 'lucide-react-native/icons/chevron-down';
import ChevronRight from 'lucide-react-native/icons/chevron-right';
import { type ReactNode, useCallback, useRef, useState } from 'react';
import { FlatList, Pressable, StyleSheet, useWindowDimensions, View } from 'react-native';
import { Button } from '../../../kit/press';
import { Empty, Failed, RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { touch } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { useWhenIdle } from '../../../kit/when-idle';
import { type Keys, useKeys } from '../../../shell/frame/use-keys';
import { useLive } from '../../../shell/live/store';
import { useLineDrawn } from '../../../shell/start/use-start';
import { useRowDeeds } from '../../deeds/parts/use-row-deeds';
import { useMore, useStretch } from '../data/line';
import { useSelected } from '../parts/selected';
import { SelectedBar } from '../parts/selected-bar';
import { words } from '../words';
import { LineRow } from './line-row';

type Item =
  | { is: 'group'; key: string; group: Group; count: number; isOpen: boolean }
  | { is: 'row'; key: string; row: Row }
  | { is: 'more'; key: string; group: Group; left: number }
  | { is: 'coming'; key: string; group: Group }
  | { is: 'failed'; key: string; group: Group };

/** The line shows every conversation. */
const VIEW = 'all';

/** The least that a row is high. */
const ROW_PX = 72;

const noKeys: Keys = {};

const alwaysOpen = new Set<Group>(['waiting', 'note', 'answered']);

const GroupHead = (props: {
  group: Group;
  count: number;
  isOpen: boolean;
  toggle: () => void;
  /** Its rows, where some are being selected; null: nobody selects any. */
  selecting: { areAll: boolean; toggleAll: () => void } | null;
}) => {
  const theme = useTheme();
  const { group, count, isOpen, selecting } = props;
  const Chevron = isOpen ? ChevronDown : ChevronRight;
  return (
    <View role="listitem" style={[styles.headLine, { borderColor: theme.ink }]}>
      <Pressable
        role="button"
        aria-expanded={isOpen}
        aria-label={`${words().groups[group]}, ${count}`}
        onPress={props.toggle}
        style={styles.head}
      >
        <Text kind="name">{words().groups[group]}</Text>
        <Text kind="name" tone={group === 'waiting' && count > 0 ? 'ember' : 'slate'}>
          {count}
        </Text>
        <Text kind="small" tone="slate" numberOfLines={1} style={styles.grow}>
          {selecting ? '' : words().groupsMore[group]}
        </Text>
        <Chevron size={20} color={theme.slate} aria-hidden />
      </Pressable>
      {selecting ? (
        <Button
          look="bare"
          label={selecting.areAll ? words().selected.none : words().selected.all}
          aria-label={`${selecting.areAll ? words().selected.none : words().selected.all}: ${words().groups[group]}`}
          onPress={selecting.toggleAll}
        />
      ) : null}
    </View>
  );
};

const MoreRows = ({ group, left }: { group: Group; left: number }) => {
  const { mutate, isPending } = useMore({ view: VIEW, group });
  return (
    <View role="listitem" style={styles.more}>
      <Button label={words().more(left)} disabled={isPending} onPress={() => mutate()} />
    </View>
  );
};

/**
 * The inbox: the groups in order of urgency, and in each the conversations in theirs. `prepare`: what whoever taps a row
 * comes to is loaded while the line stands idle, and at the latest when a finger touches it. `whenEmpty`: what stands
 * there as long as nobody has written, instead of the plain words for it.
 */
export const LineColumn = ({
  prepare,
  whenEmpty = (plain) => plain,
}: {
  prepare?: () => Promise<unknown>;
  whenEmpty?: (plain: ReactNode) => ReactNode;
}) => {
  const { height } = useWindowDimensions();
  const counts = useLive((live) => live.counts[VIEW]);
  const { id, show } = useGlobalSearchParams<{ id?: string; show?: string }>();
  const [opened, setOpened] = useState<Partial<Record<Group, boolean>>>(
    // By the home screen's shortcut: those who wait, and nobody else at first.
    show === 'waiting' ? { note: false, answered: false } : {},
  );
  const ended = useRef((): void => undefined);
  const { deeds, sheet } = useRowDeeds(useCallback(() => ended.current(), []));
  const isOpen = (group: Group): boolean => opened[group] ?? alwaysOpen.has(group);
  const queries = {
    waiting: useStretch({ view: VIEW, group: 'waiting' }, isOpen('waiting')),
    note: useStretch({ view: VIEW, group: 'note' }, isOpen('note')),
    answered: useStretch({ view: VIEW, group: 'answered' }, isOpen('answered')),
    'put-by': useStretch({ view: VIEW, group: 'put-by' }, isOpen('put-by')),
    'wrapped-up': useStretch({ view: VIEW, group: 'wrapped-up' }, isOpen('wrapped-up')),
  };

  const items: Item[] = groups.flatMap((group): Item[] => {
    const { data, isError } = queries[group];
    // A group that is here whole counts itself: what was just done shows at once, without signal too.
    const count = data?.next === null ? data.rows.length : (counts?.[group] ?? 0);
    const open = isOpen(group);
    const head: Item = { is: 'group', key: group, group, count, isOpen: open };
    if (!open || count === 0) return [head];
    if (!data) {
      const state = isError ? 'failed' : 'coming';
      return [head, { is: state, key: `${group} ${state}`, group }];
    }
    const rows = data.rows.map((row): Item => ({ is: 'row', key: row.id, row }));
    const left = Math.max(1, count - data.rows.length);
    return data.next === null
      ? [head, ...rows]
      : [head, ...rows, { is: 'more', key: `${group} more`, group, left }];
  });

  const isHere = counts !== undefined && queries.waiting.data !== undefined;
  // The same as long as nothing of what stands in the line is another.
  const drawn = isHere ? groups.map((group) => queries[group].dataUpdatedAt).join() : null;
  useLineDrawn(isHere || queries.waiting.isError, drawn);
  useWhenIdle(isHere, prepare);

  const rows = items.flatMap((item) => (item.is === 'row' ? [item.row] : []));
  const { isSelecting, isSelected, selected, inLine, aside, toggle, toggleAll, end } =
    useSelected(rows);
  ended.current = end;
  /** The row that the keyboard is at, or the one that is open. */
  const rowAtKeyboard = (): Row | undefined => {
    const at = document.activeElement?.closest<HTMLElement>('[data-talk]')?.dataset.talk ?? id;
    return rows.find((row) => row.id === at);
  };
  const selectAt = (): void => {
    const row = rowAtKeyboard();
    if (row) toggle(row);
  };
  useKeys({ x: selectAt });
  const keysOfSelected: Keys = {
    e: () => inLine.length > 0 && deeds.wrapUpAll(inLine),
    b: () => inLine.length > 0 && deeds.putByAll(inLine),
    u: () => aside.length > 0 && deeds.takeBackAll(aside),
    a: () => {
      const group = rowAtKeyboard()?.group ?? selected[0]?.group;
      toggleAll(rows.filter((row) => row.group === group));
    },
    Escape: end,
  };
  useKeys(isSelecting ? keysOfSelected : noKeys, true);
  const walk = (by: number) => (): void => {
    const at = rows.findIndex((row) => row.id === id);
    const next = rows[at < 0 ? 0 : Math.min(rows.length - 1, Math.max(0, at + by))];
    if (next) deeds.open(next);
  };
  useKeys({ j: walk(1), k: walk(-1) });

  const selectingIn = (group: Group) => {
    const inGroup = rows.filter((row) => row.group === group);
    if (!isSelecting || inGroup.length === 0) return null;
    return { areAll: inGroup.every(isSelected), toggleAll: () => toggleAll(inGroup) };
  };

  if (queries.waiting.isError && !queries.waiting.data) {
    return <Failed retry={() => void queries.waiting.refetch()} />;
  }
  if (!counts) return <RowsComing />;
  const isNobody = groups.every((group) => counts[group] === 0);
  if (isNobody) {
    return whenEmpty(
      <Empty title={words().empty} more={words().emptyMore}>
        <Button label={words().emptyAction} onPress={() => router.navigate('/house')} />
      </Empty>,
    );
  }

  return (
    <View style={styles.grow}>
      <View
        style={styles.grow}
        role="list"
        aria-label={words().label}
        onPointerDown={() => void prepare?.().catch(() => undefined)}
      >
        <FlatList
          data={items}
          // As many as the screen shows, and a few below it: more are drawn once these stand.
          initialNumToRender={Math.ceil(height / ROW_PX) + 2}
          keyExtractor={(item) => item.key}
          extraData={`${id} ${[...selected.map((row) => row.id)]} ${isSelecting}`}
          renderItem={({ item }) => {
            if (item.is === 'coming') return <RowsComing count={2} />;
            if (item.is === 'failed') {
              return (
                <View role="listitem">
                  <Failed retry={() => void queries[item.group].refetch()} />
                </View>
              );
            }
            if (item.is === 'more') return <MoreRows group={item.group} left={item.left} />;
            if (item.is === 'row') {
              return (
                <LineRow
                  row={item.row}
                  isChosen={item.row.id === id}
                  isSelected={isSelecting ? isSelected(item.row) : null}
                  select={toggle}
                  {...deeds}
                />
              );
            }
            return (
              <GroupHead
                group={item.group}
                count={item.count}
                isOpen={item.isOpen}
                toggle={() => setOpened({ ...opened, [item.group]: !item.isOpen })}
                selecting={selectingIn(item.group)}
              />
            );
          }}
        />
      </View>
      {isSelecting ? <SelectedBar inLine={inLine} aside={aside} deeds={deeds} end={end} /> : null}
      {sheet}
    </View>
  );
};

const styles = StyleSheet.create({
  grow: { flex: 1 },
  headLine: { flexDirection: 'row', alignItems: 'flex-end', borderBottomWidth: 2 },
  head: {
    flex: 1,
    minHeight: touch,
    flexDirection: 'row',
    alignItems: 'baseline',
    gap: 8,
    paddingHorizontal: 16,
    paddingTop: 14,
    paddingBottom: 6,
  },
  more: { padding: 16, alignItems: 'flex-start' },
});
