import type { ShelfShown } from '@porch/contract/shelf';
import {
  currencyOf,
  SHELF_STARTS_MOST,
  type ShelfField,
  type ShelfKind,
  type Stock,
  shelfFields,
  shelfKinds,
  shelfLongest,
  stocks,
} from '@porch/core/shelf';
import { router } from 'expo-router';
import X from 'lucide-react-native/icons/x';
import { nanoid } from 'nanoid';
import { type ReactNode, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Choice } from '../../../kit/fields/choice';
import { Field } from '../../../kit/fields/field';
import { Problem, Row } from '../../../kit/fields/form';
import { MomentField } from '../../../kit/fields/moment-field';
import { SaveRow } from '../../../kit/fields/save-row';
import { Button, GlyphButton } from '../../../kit/press';
import { Failed, RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { offerUndo } from '../../../shell/frame/undo';
import { PicturesField } from '../../../shell/pictures/pictures-field';
import { useHouse, useZone } from '../../../shell/session/house';
import { problemElsewhere, problemOf } from '../../../shell/session/problems';
import { ApiError } from '../../../shell/session/refused';
import {
  draftOf,
  emptyDraft,
  NEW,
  type ShelfDraft,
  type StartTyped,
  shelfDrafts,
  toThing,
} from '../data/draft';
import { revisionNow, useDropThing, usePutThing, useShelfThing } from '../data/shelf';
import { words } from '../words';

const said = () => words().editor;

interface Editing {
  draft: ShelfDraft;
  change: (part: Partial<ShelfDraft>) => void;
  problem: (field: string) => string;
}

const Line = ({
  field,
  label,
  more,
  editing: { draft, change, problem },
}: {
  field: 'sku' | 'code' | 'address' | 'hours' | 'link';
  label: string;
  more?: string;
  editing: Editing;
}) => (
  <Field
    label={label}
    more={more}
    value={draft[field]}
    maxLength={shelfLongest[field]}
    autoCapitalize={field === 'address' || field === 'hours' ? 'sentences' : 'none'}
    {...(field === 'link' ? { inputMode: 'url' as const, placeholder: 'https://' } : {})}
    onChangeText={(typed) => change({ [field]: typed })}
    problem={problem(field)}
  />
);

const Starts = ({ editing: { draft, change, problem } }: { editing: Editing }) => {
  const theme = useTheme();
  const { starts } = draft;
  const put = (at: number, part: Partial<StartTyped>): void =>
    change({ starts: starts.map((one, i) => (i === at ? { ...one, ...part } : one)) });
  return (
    <View role="group" aria-label={said().starts} style={styles.starts}>
      <Text kind="label">{said().starts}</Text>
      {starts.map(({ day, time }, at) => (
        // Which one it is is where it stands: two may be the same for a while.
        // biome-ignore lint/suspicious/noArrayIndexKey: they have no names of their own
        <View key={at} role="group" aria-label={said().start(at + 1)}>
          <View style={styles.startTop}>
            <Text tone="slate">{said().start(at + 1)}</Text>
            <GlyphButton
              label={said().dropStart(at + 1)}
              onPress={() => change({ starts: starts.filter((_one, i) => i !== at) })}
            >
              <X size={20} color={theme.ink} aria-hidden />
            </GlyphButton>
          </View>
          <View style={styles.start}>
            <MomentField
              kind="date"
              label={said().startDay}
              value={day}
              onChange={(value) => put(at, { day: value })}
            />
            <MomentField
              kind="time"
              label={said().startTime}
              value={time}
              onChange={(value) => put(at, { time: value })}
            />
          </View>
        </View>
      ))}
      <Problem text={problem('starts')} />
      {starts.length < SHELF_STARTS_MOST ? (
        <Row>
          <Button
            label={said().addStart}
            onPress={() => change({ starts: [...starts, { day: '', time: '' }] })}
          />
        </Row>
      ) : null}
    </View>
  );
};

/** The fields of a kind, in the order in which they are asked for. */
const fields: Readonly<Record<ShelfField, (editing: Editing) => ReactNode>> = {
  price: ({ draft, change, problem }) => (
    <Field
      key="price"
      label={said().money}
      more={said().moneyMore}
      value={draft.money}
      maxLength={40}
      autoCapitalize="characters"
      onChangeText={(money) => change({ money })}
      problem={problem('price') || problem('currency')}
    />
  ),
  currency: () => null,
  stock: ({ draft, change }) => (
    <Choice<Stock>
      key="stock"
      label={said().stock}
      options={stocks.map((one) => [one, said().stocks[one]] as const)}
      value={draft.stock}
      onChange={(stock) => change({ stock })}
    />
  ),
  sku: (editing) => (
    <Line key="sku" field="sku" label={said().sku} more={said().skuMore} editing={editing} />
  ),
  text: ({ draft, change, problem }) => (
    <Field
      key="text"
      label={said().text}
      value={draft.text}
      maxLength={shelfLongest.text}
      multiline
      numberOfLines={3}
      onChangeText={(text) => change({ text })}
      problem={problem('text')}
    />
  ),
  code: (editing) => (
    <Line key="code" field="code" label={said().code} more={said().codeMore} editing={editing} />
  ),
  until: ({ draft, change, problem }) => (
    <View key="until" style={styles.starts}>
      <MomentField
        kind="date"
        label={said().lastDay}
        value={draft.lastDay}
        onChange={(lastDay) => change({ lastDay })}
        problem={problem('until')}
      />
      <Text kind="small" tone="slate">
        {said().noEnd}
      </Text>
    </View>
  ),
  address: (editing) => (
    <Line key="address" field="address" label={said().address} editing={editing} />
  ),
  hours: (editing) => <Line key="hours" field="hours" label={said().hours} editing={editing} />,
  link: (editing) => (
    <Line
      key="link"
      field="link"
      label={editing.draft.kind === 'place' ? said().linkRoute : said().link}
      editing={editing}
    />
  ),
  starts: (editing) => <Starts key="starts" editing={editing} />,
  minutes: ({ draft, change, problem }) => (
    <Field
      key="minutes"
      label={said().minutes}
      more={said().minutesMore}
      value={draft.minutes}
      maxLength={4}
      inputMode="numeric"
      onChangeText={(minutes) => change({ minutes })}
      problem={problem('minutes')}
    />
  ),
  pictureUrl: () => null,
};

/** What is wrong with a part of it, where the house has refused that. */
const problemWith = (error: Error | null, field: string): string => {
  const isMissing =
    error instanceof ApiError &&
    error.refusal.code === 'text-empty' &&
    error.refusal.field === field;
  if (isMissing && field === 'pictureUrl') return said().pictureMissing;
  if (isMissing && field === 'starts') return said().startsMissing;
  return problemOf(error, field);
};

const hostOf = (url: string): string => (URL.canParse(url) ? new URL(url).host : '');

/** Writing something that stands on the shelf. `id` 'new': one more. */
export const ShelfEditor = ({ id }: { id: string }) => {
  const thing = useShelfThing(id === NEW ? null : id);
  const house = useHouse();
  if (thing.isError && thing.data === undefined)
    return <Failed retry={() => void thing.refetch()} />;
  if ((id !== NEW && thing.data === undefined) || !house.data) return <RowsComing />;
  return <Editor key={id} id={id} known={thing.data ?? null} />;
};

const Editor = ({ id, known }: { id: string; known: ShelfShown | null }) => {
  const zone = useZone();
  const country = useHouse().data?.business?.country ?? '';
  const [began] = useState(() => ({ newId: id === NEW || !known ? nanoid() : id }));
  const clean = known ? draftOf(known, zone) : emptyDraft('item');
  const [draft, setDraft] = useState<ShelfDraft>(() => shelfDrafts.read(id) ?? clean);
  const put = usePutThing();
  const drop = useDropThing();
  const leave = (): void => {
    shelfDrafts.drop(id);
    router.navigate('/house/shelf');
  };
  const hold = (next: ShelfDraft): void => {
    setDraft(next);
    shelfDrafts.write(id, next);
  };
  const change = (part: Partial<ShelfDraft>): void => {
    hold({ ...draft, ...part });
    put.reset();
  };
  const save = (): void =>
    put.mutate(
      {
        id: began.newId,
        // One that is not there any more is a new one.
        revision: known ? draft.revision : 0,
        thing: toThing(draft, { zone, currency: currencyOf(country) }),
        fileId: draft.picture?.id ?? null,
      },
      {
        onSuccess: leave,
        onError: (error) => {
          // Whoever was told that somebody changed it meanwhile, and saves once more, means it.
          if (error instanceof ApiError && error.refusal.code === 'changed-meanwhile') {
            revisionNow(began.newId).then(
              (revision) => hold({ ...draft, revision }),
              () => undefined,
            );
          }
        },
      },
    );
  const forget = (): void => {
    shelfDrafts.drop(id);
    setDraft(clean);
    put.reset();
  };
  const remove = (gone: ShelfShown): void =>
    drop.mutate(gone.id, {
      onSuccess: () => {
        const fileId = gone.picture?.id ?? null;
        offerUndo({
          said: words().dropped(gone.name),
          deedIds: [''],
          undo: () => put.mutate({ id: gone.id, revision: 0, thing: gone, fileId }),
        });
        leave();
      },
    });
  const isChanged = JSON.stringify(draft) !== JSON.stringify(clean);
  const shown = ['name', ...shelfFields[draft.kind]];
  const problem = (field: string): string => problemWith(put.error, field);
  const editing: Editing = { draft, change, problem };
  return (
    <ScrollView contentContainerStyle={styles.page} keyboardShouldPersistTaps="handled">
      <Row>
        <Button
          look="bare"
          label={`‹ ${said().back}`}
          onPress={() => router.navigate('/house/shelf')}
        />
      </Row>
      <Text kind="large" role="heading" aria-level={1}>
        {known ? said().titleChange : said().titleNew}
      </Text>
      {id !== NEW && !known ? <Text tone="brick">{said().gone}</Text> : null}
      {known ? null : (
        <Choice<ShelfKind>
          label={said().kind}
          options={shelfKinds.map((kind) => [kind, words().kinds[kind]] as const)}
          value={draft.kind}
          onChange={(kind) =>
            change({ kind, starts: kind === 'slots' ? emptyDraft(kind).starts : [] })
          }
        />
      )}
      <Field
        label={said().name}
        placeholder={said().names[draft.kind]}
        value={draft.name}
        maxLength={shelfLongest.name}
        onChangeText={(name) => change({ name })}
        problem={problem('name')}
      />
      {shelfFields[draft.kind].map((field) => fields[field](editing))}
      <PicturesField
        pictures={draft.picture ? [draft.picture] : []}
        most={1}
        mostWords={said().picture}
        change={([picture = null]) => change({ picture })}
      />
      {draft.pictureUrl && !draft.picture ? (
        <Text kind="small" tone="slate">
          {said().pictureUrl(hostOf(draft.pictureUrl))}
        </Text>
      ) : null}
      <Problem text={problem('pictureUrl') || problem('fileId')} />
      <Problem
        text={
          put.error instanceof ApiError && put.error.refusal.code === 'changed-meanwhile'
            ? said().anew
            : problemElsewhere(put.error, [...shown, 'pictureUrl', 'fileId'])
        }
      />
      <Problem text={problemOf(drop.error)} />
      <SaveRow
        save={{ label: said().save, isBusy: put.isPending, do: save }}
        forget={isChanged ? { label: said().forget, kept: said().kept, do: forget } : null}
        drop={
          known ? { label: said().drop, isBusy: drop.isPending, do: () => remove(known) } : null
        }
      />
    </ScrollView>
  );
};

const styles = StyleSheet.create({
  page: { padding: 16, gap: 20, maxWidth: 720, width: '100%', alignSelf: 'center' },
  starts: { gap: 6 },
  startTop: { flexDirection: 'row', alignItems: 'center', gap: 4 },
  start: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'flex-end', gap: 8 },
});
