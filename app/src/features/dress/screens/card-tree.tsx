import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import type { CardCount } from '@porch/contract/cards';
import { type Branch, type Card, type Cards, treeOf, withMoved } from '@porch/core/cards';
import ArrowDown from 'lucide-react-native/icons/arrow-down';
import ArrowUp from 'lucide-react-native/icons/arrow-up';
import GripVertical from 'lucide-react-native/icons/grip-vertical';
import { Pressable, StyleSheet, View } from 'react-native';
import { GlyphButton } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { corner, touch } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { words } from '../words';

const said = () => words().asked;

const nameOf = ({ question }: Card): string => question.trim() || said().nameless;

/** Below which first card each other one is drawn. */
const branchesOf = (all: Cards): Map<string, Branch[]> => {
  const below = new Map<string, Branch[]>();
  let first = '';
  for (const branch of treeOf(all)) {
    if (branch.depth === 0) first = branch.card.id;
    below.set(first, [...(below.get(first) ?? []), branch]);
  }
  return below;
};

interface Drawn {
  all: Cards;
  counts: ReadonlyMap<string, CardCount>;
  open: (id: string) => void;
  hasProblem: (id: string) => boolean;
}

const CardRow = (props: Drawn & { branch: Branch; more?: string }) => {
  const theme = useTheme();
  const { branch, counts, open } = props;
  const { card, depth, leadsBack } = branch;
  const { tapped = 0, enough = 0 } = counts.get(card.id) ?? {};
  const small = [
    props.hasProblem(card.id) ? said().notRight : '',
    props.more,
    leadsBack ? said().goesBack : '',
    leadsBack ? '' : said().tapped(tapped, enough),
  ];
  return (
    <Pressable
      role="button"
      aria-label={said().open(nameOf(card))}
      onPress={() => open(card.id)}
      style={[
        styles.row,
        { borderColor: props.hasProblem(card.id) ? theme.brick : theme.edge },
        depth > 0 ? { marginLeft: depth * STEP, borderLeftWidth: 3 } : null,
      ]}
    >
      <Text kind="label" {...{ dir: 'auto' }}>
        {nameOf(card)}
      </Text>
      <Text kind="small" tone={leadsBack || props.hasProblem(card.id) ? 'brick' : 'slate'}>
        {small.filter(Boolean).join(' · ')}
      </Text>
    </Pressable>
  );
};

const First = (
  props: Drawn & {
    branches: readonly Branch[];
    place: number;
    last: number;
    move: (id: string, by: -1 | 1) => void;
  },
) => {
  const theme = useTheme();
  const { branches, place, last, move } = props;
  const [branch, ...below] = branches;
  const id = branch?.card.id ?? '';
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id,
  });
  if (!branch) return null;
  const name = nameOf(branch.card);
  const states = props.all.first.find((one) => one.id === id)?.states ?? [];
  const more =
    states.length === 3
      ? ''
      : states.map((state) => words().states[state === 'back-soon' ? 'soon' : state]).join(', ');
  return (
    <div
      ref={setNodeRef}
      style={{
        transform: transform ? `translateY(${Math.round(transform.y)}px)` : undefined,
        transition,
        position: 'relative',
        zIndex: isDragging ? 1 : undefined,
        background: theme.paper,
      }}
    >
      <View style={styles.first}>
        <button
          type="button"
          {...attributes}
          {...listeners}
          aria-label={said().handle(name)}
          style={{
            width: touch,
            minHeight: touch,
            border: 0,
            background: 'none',
            cursor: 'grab',
            touchAction: 'none',
          }}
        >
          <GripVertical size={22} color={theme.slate} aria-hidden />
        </button>
        <View style={styles.grow}>
          <CardRow {...props} branch={branch} more={more} />
        </View>
        <GlyphButton
          label={said().up(name)}
          disabled={place === 0}
          onPress={() => move(id, -1)}
          style={place === 0 ? styles.off : undefined}
        >
          <ArrowUp size={20} color={theme.ink} aria-hidden />
        </GlyphButton>
        <GlyphButton
          label={said().down(name)}
          disabled={place === last}
          onPress={() => move(id, 1)}
          style={place === last ? styles.off : undefined}
        >
          <ArrowDown size={20} color={theme.ink} aria-hidden />
        </GlyphButton>
      </View>
      {below.map((one) => (
        <View key={`${one.depth} ${one.card.id}`} style={styles.below}>
          <CardRow {...props} branch={one} />
        </View>
      ))}
    </div>
  );
};

/** The cards of a door as a small tree; those that are shown first change places by dragging, by arrows and by keyboard. */
export const CardTree = (props: Drawn & { change: (all: Cards) => void }) => {
  const { all, change } = props;
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = all.first.map(({ id }) => id);
  const name = (id: string | number): string => {
    const card = all.cards.find((one) => one.id === id);
    return card ? nameOf(card) : '';
  };
  const placeOf = (id: string | number): number => ids.indexOf(String(id)) + 1;
  const move = (id: string, by: -1 | 1): void => {
    const other = ids[ids.indexOf(id) + by];
    if (other !== undefined) change(withMoved(all, id, other));
  };
  const put = ({ active, over }: DragEndEvent): void => {
    if (over) change(withMoved(all, String(active.id), String(over.id)));
  };
  const branches = branchesOf(all);
  const isDrawn = new Set(treeOf(all).map(({ card }) => card.id));
  const others = all.cards.filter(({ id }) => !isDrawn.has(id));
  const told = said().moving;
  return (
    <View style={styles.tree}>
      {ids.length > 0 ? (
        <View role="group" aria-label={said().first} style={styles.tree}>
          <DndContext
            sensors={sensors}
            collisionDetection={closestCenter}
            onDragEnd={put}
            accessibility={{
              screenReaderInstructions: { draggable: told.instructions },
              announcements: {
                onDragStart: ({ active }) => told.picked(name(active.id)),
                onDragOver: ({ active, over }) =>
                  over ? told.over(name(active.id), placeOf(over.id)) : undefined,
                onDragEnd: ({ active, over }) =>
                  over ? told.put(name(active.id), placeOf(over.id)) : told.left(name(active.id)),
                onDragCancel: ({ active }) => told.left(name(active.id)),
              },
            }}
          >
            <SortableContext items={ids} strategy={verticalListSortingStrategy}>
              {ids.map((id, place) => (
                <First
                  key={id}
                  {...props}
                  branches={branches.get(id) ?? []}
                  place={place}
                  last={ids.length - 1}
                  move={move}
                />
              ))}
            </SortableContext>
          </DndContext>
        </View>
      ) : null}
      {others.length > 0 ? (
        <View role="group" aria-label={said().others} style={styles.tree}>
          <Text kind="label">{said().others}</Text>
          {others.map((card) => (
            <CardRow key={card.id} {...props} branch={{ card, depth: 0, leadsBack: false }} />
          ))}
        </View>
      ) : null}
    </View>
  );
};

const STEP = 20;

const styles = StyleSheet.create({
  tree: { gap: 8 },
  first: { flexDirection: 'row', alignItems: 'center' },
  below: { marginTop: 6, marginLeft: touch },
  grow: { flex: 1, minWidth: 0 },
  row: {
    minHeight: touch,
    gap: 2,
    paddingHorizontal: 12,
    paddingVertical: 8,
    borderWidth: 1,
    borderRadius: corner,
  },
  off: { opacity: 0.3 },
});
