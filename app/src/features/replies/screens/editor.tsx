import type { FileMention } from '@porch/core/conversation';
import {
  CODE_LONGEST,
  cleanCode,
  gapNames,
  piecesOf,
  REPLY_GROUP_LONGEST,
  REPLY_PICTURES_MOST,
  REPLY_TITLE_LONGEST,
} from '@porch/core/replies';
import type { Finding } from '@porch/core/writing';
import { type Href, router } from 'expo-router';
import { nanoid } from 'nanoid';
import { useMemo, useRef, useState } from 'react';
import { ScrollView, StyleSheet, type TextInput, View } from 'react-native';
import { Choice } from '../../../kit/fields/choice';
import { Field } from '../../../kit/fields/field';
import { Problem, Row } from '../../../kit/fields/form';
import { areaOf } from '../../../kit/fields/marked-input';
import { SaveRow } from '../../../kit/fields/save-row';
import { Select } from '../../../kit/fields/select';
import { Button } from '../../../kit/press';
import { Failed, RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { offerUndo } from '../../../shell/frame/undo';
import { PicturesField } from '../../../shell/pictures/pictures-field';
import { problemElsewhere, problemOf } from '../../../shell/session/problems';
import { ApiError } from '../../../shell/session/refused';
import { type Named, ThingsField } from '../../shelf/parts/things-field';
import { CheckedField } from '../../writing/parts/checked-field';
import { LookedThrough } from '../../writing/parts/late';
import { draftOf, emptyDraft, NEW, type ReplyDraft, replyDrafts } from '../data/draft';
import { useDropReply, usePutReply, useQuickReplies } from '../data/replies';
import { words } from '../words';
import { Preview } from './preview';

const said = () => words().editor;
const fieldsWithProblems = ['title', 'code', 'text', 'group'];

const GapButtons = ({ put }: { put: (gap: string) => void }) => (
  <View role="group" aria-label={said().gaps} style={styles.gaps}>
    <Text kind="second" tone="slate">
      {said().gaps}
    </Text>
    <Row>
      {gapNames.map((name) => (
        <Button
          key={name}
          label={`{${name}}`}
          onPress={() => put(name === 'first name' ? '{first name|there}' : `{${name}}`)}
          style={styles.small}
        />
      ))}
      <Button look="bare" label={said().ownGap} onPress={() => put(`{${said().ownGapName}?}`)} />
    </Row>
  </View>
);

const noPictures: FileMention[] = [];
const noThings: Named[] = [];

/**
 * Writing a quick reply, with what may be wrong in it and as somebody would read it. `id` 'new': one more. `talkId`:
 * the conversation that whoever saves goes back to.
 */
export const ReplyEditor = ({ id, talkId }: { id: string; talkId?: string }) => {
  const replies = useQuickReplies();
  if (replies.isError && !replies.data) return <Failed retry={() => void replies.refetch()} />;
  if (!replies.data) return <RowsComing />;
  return <Editor key={id} id={id} leaveTo={talkId ? `/line/${talkId}` : '/house/replies'} />;
};

const Editor = ({ id, leaveTo }: { id: string; leaveTo: Href }) => {
  const { data = [] } = useQuickReplies();
  const known = data.find((one) => one.id === id) ?? null;
  // Whatever happens meanwhile, it is this one that is changed, and this one that is written.
  const [began] = useState(() => ({ newId: id === NEW || !known ? nanoid() : id }));
  const [draft, setDraft] = useState<ReplyDraft>(
    () => replyDrafts.read(id) ?? (known ? draftOf(known) : emptyDraft('en')),
  );
  const [pictures, setPictures] = useState<FileMention[]>(known?.pictures ?? noPictures);
  const [things, setThings] = useState<Named[]>(known?.shelf ?? noThings);
  // Whoever was told that somebody changed it meanwhile, and saves once more, means it.
  const [isMeant, setMeant] = useState(false);
  const field = useRef<TextInput>(null);
  const put = usePutReply();
  const drop = useDropReply();
  const [findings, setFindings] = useState<readonly Finding[]>([]);
  const gaps = useMemo(
    () =>
      piecesOf(draft.text).filter(
        (piece) => piece.kind === 'gap' && (piece.known || piece.isAsked),
      ),
    [draft.text],
  );
  const groups = [...new Set(data.map(({ group }) => group).filter(Boolean))].sort();

  const change = (part: Partial<ReplyDraft>): void => {
    const next = { ...draft, ...part };
    setDraft(next);
    replyDrafts.write(id, next);
    put.reset();
  };
  const goesWith = () => ({
    fileIds: pictures.map((one) => one.id),
    shelfIds: things.map((one) => one.id),
  });
  const save = (): void => {
    // One that is not there any more is a new one.
    const revision = known ? (isMeant ? known : draft).revision : 0;
    const typed = { ...draft, revision, ...goesWith() };
    put.mutate(
      { id: began.newId, ...typed },
      {
        onSuccess: () => {
          replyDrafts.drop(id);
          router.navigate(leaveTo);
        },
        onError: (error) => {
          if (error instanceof ApiError && error.refusal.code === 'changed-meanwhile')
            setMeant(true);
        },
      },
    );
  };
  const forget = (): void => {
    replyDrafts.drop(id);
    setDraft(known ? draftOf(known) : emptyDraft('en'));
    setPictures(known?.pictures ?? noPictures);
    setThings(known?.shelf ?? noThings);
    setMeant(true);
  };
  const remove = (): void => {
    const gone = { ...draft, ...goesWith() };
    drop.mutate(began.newId, {
      onSuccess: () => {
        replyDrafts.drop(id);
        offerUndo({
          said: words().dropped(draft.title),
          deedIds: [''],
          undo: () => put.mutate({ id: nanoid(), ...gone, revision: 0 }),
        });
        router.navigate('/house/replies');
      },
    });
  };
  const putGap = (gap: string): void => {
    const area = areaOf(field);
    const from = area?.selectionStart ?? draft.text.length;
    const to = area?.selectionEnd ?? from;
    change({ text: draft.text.slice(0, from) + gap + draft.text.slice(to) });
    // The field has the new text only after it is drawn.
    requestAnimationFrame(() => {
      area?.focus();
      area?.setSelectionRange(from + gap.length, from + gap.length);
    });
  };
  const isChanged =
    JSON.stringify(draft) !== JSON.stringify(known ? draftOf(known) : emptyDraft('en')) ||
    pictures !== (known?.pictures ?? noPictures) ||
    things !== (known?.shelf ?? noThings);
  const code = cleanCode(draft.code);

  return (
    <ScrollView contentContainerStyle={styles.page} keyboardShouldPersistTaps="handled">
      <Row>
        <Button
          look="bare"
          label={`‹ ${said().back}`}
          onPress={() => router.navigate('/house/replies')}
        />
      </Row>
      <Text kind="large" role="heading" aria-level={1}>
        {known ? said().titleChange : said().titleNew}
      </Text>
      {id !== NEW && !known ? <Text tone="brick">{said().gone}</Text> : null}
      <Field
        label={said().title}
        more={said().titleMore}
        value={draft.title}
        maxLength={REPLY_TITLE_LONGEST}
        onChangeText={(title) => change({ title })}
        problem={problemOf(put.error, 'title')}
      />
      <Field
        label={said().code}
        more={said().codeMore(code)}
        value={draft.code}
        maxLength={CODE_LONGEST}
        autoCapitalize="none"
        autoCorrect={false}
        onChangeText={(typed) => change({ code: typed })}
        problem={problemOf(put.error, 'code')}
      />
      <CheckedField
        label={said().text}
        more={said().textMore}
        field={field}
        value={draft.text}
        findings={findings}
        gaps={gaps}
        change={(text) => change({ text })}
        problem={problemOf(put.error, 'text')}
      />
      <GapButtons put={putGap} />
      <LookedThrough
        text={draft.text}
        language={draft.language}
        change={(text) => change({ text })}
        onFound={setFindings}
      />
      {draft.text.trim() ? <Preview text={draft.text} language={draft.language} /> : null}
      <Field
        label={said().group}
        more={said().groupMore}
        value={draft.group}
        maxLength={REPLY_GROUP_LONGEST}
        onChangeText={(group) => change({ group })}
        problem={problemOf(put.error, 'group')}
      />
      {groups.length > 0 ? (
        <View role="group" aria-label={said().groups}>
          <Row>
            {groups.map((group) => (
              <Button
                key={group}
                look="bare"
                label={group}
                onPress={() => change({ group })}
                style={styles.small}
              />
            ))}
          </Row>
        </View>
      ) : null}
      <Select
        label={said().language}
        options={Object.entries(words().languages)}
        value={draft.language}
        onChange={(language) => change({ language })}
      />
      <Choice
        label={said().whose}
        options={[
          ['team', said().whoseTeam],
          ['own', said().whoseOwn],
        ]}
        value={draft.isOwn ? 'own' : 'team'}
        onChange={(whose) => change({ isOwn: whose === 'own' })}
      />
      <PicturesField
        pictures={pictures}
        most={REPLY_PICTURES_MOST}
        mostWords={said().picturesMost(REPLY_PICTURES_MOST)}
        change={setPictures}
      />
      <ThingsField things={things} change={setThings} />
      <Problem
        text={
          put.error instanceof ApiError && put.error.refusal.code === 'changed-meanwhile'
            ? said().anew
            : problemElsewhere(put.error, fieldsWithProblems)
        }
      />
      <Problem text={problemOf(drop.error)} />
      <SaveRow
        save={{ label: said().save, isBusy: put.isPending, do: save }}
        forget={isChanged ? { label: said().forget, kept: said().kept, do: forget } : null}
        drop={known ? { label: said().drop, isBusy: drop.isPending, do: remove } : null}
      />
    </ScrollView>
  );
};

const styles = StyleSheet.create({
  page: { padding: 16, gap: 20, maxWidth: 720, width: '100%', alignSelf: 'center' },
  gaps: { gap: 6 },
  small: { paddingHorizontal: 12, paddingVertical: 6 },
});
