import { type HeldFile, withChosen } from '@porch/client/files';
import type { Door } from '@porch/contract/doors';
import type { Row, Thread } from '@porch/contract/entries';
import { FILE_LIMITS } from '@porch/core/files';
import { goAsLinks, withLinks } from '@porch/core/routes';
import { allFiles, wholeText } from '@porch/core/shelf/plain';
import { MESSAGE_LONGEST, TEXT_HELD_MOST } from '@porch/core/text';
import Smile from 'lucide-react-native/icons/face-slightly-smiling';
import ImagePlus from 'lucide-react-native/icons/image-plus';
import ShelfGlyph from 'lucide-react-native/icons/library-big';
import TrayGlyph from 'lucide-react-native/icons/notebook-text';
import X from 'lucide-react-native/icons/x';
import { type ReactNode, type RefObject, useEffect, useRef, useState } from 'react';
import {
  type NativeSyntheticEvent,
  StyleSheet,
  type TextInput,
  type TextInputKeyPressEventData,
  View,
} from 'react-native';
import { MarkedInput } from '../../../kit/fields/marked-input';
import { Button, GlyphButton } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { scale } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { useWide } from '../../../kit/theme/use-wide';
import { EmojiFrame } from '../../../shell/emoji/emoji-frame';
import { useKeys } from '../../../shell/frame/use-keys';
import { tellTyping } from '../../../shell/live/use-connection';
import { MINUTE_MS, useAsTimeGoes, useNow } from '../../../shell/live/use-now';
import { drafts } from '../../../shell/offline/drafts';
import { chooseFiles } from '../../../shell/pictures/file-chooser';
import { useDoorNames, useHouse, useZone } from '../../../shell/session/house';
import { shellWords } from '../../../shell/words';
import { whyInWords } from '../../../shell/words/why';
import { useDeeds } from '../../deeds/data/deeds';
import { siteKind } from '../../doors/parts/site-kind';
import { useFits } from '../../replies/data/fits';
import { GapsLine, gapOpen, pictureMissing } from '../../replies/parts/gaps-line';
import { ReplyTray, trayNames } from '../../replies/parts/tray';
import { ChosenThings } from '../../shelf/parts/chosen';
import { ShelfTray, shelfNames } from '../../shelf/parts/shelf-tray';
import { words } from '../words';
import { routeInWords } from './route-shown';
import { SegmentsLine } from './segments-line';
import { usePicking } from './use-picking';
import { useThings } from './use-things';
import { Ways } from './ways';

const TALLEST = 180;

/** By whom of those who stand in a conversation it is written, and by which door. */
const useWays = (row: Row) => {
  const { canMail = false, doors = [] } = useHouse().data ?? {};
  const zone = useZone();
  const doorName = useDoorNames();
  const [chosenId, choose] = useState<string | null>(null);
  const last = row.threads[0];
  const [begunForId, beginFor] = useState(() => (drafts.text(row.id) && last ? last.id : null));
  const by = (wanted: string | null) => row.threads.find(({ id }) => id === wanted);
  const chosen = by(chosenId) ?? by(begunForId) ?? last;
  // Whoever read somebody's code may be somebody else: nobody is answered by mistake.
  const isUnclear = row.threads.length > 1 && chosen?.isByCode === true && !by(chosenId);
  const doorOf = (thread: Thread | undefined): Door | null =>
    doors.find(({ id }) => id === thread?.doorId) ?? null;
  const nameOf = (thread: Thread): string => doorName(thread.doorId) || siteKind();
  const routeOf = (thread: Thread | undefined, now: number) => {
    // Before the house is known its doors are not gone.
    const door = doorOf(thread) ?? (doors.length === 0 ? undefined : null);
    const name = thread ? nameOf(thread) : '';
    return routeInWords({ thread, door, doorName: name, canMail }, now, zone);
  };
  return {
    chosen,
    isUnclear,
    choose,
    /** What is begun for somebody stays theirs, whoever writes meanwhile; false: nothing is written any more. */
    begin: (isBegun: boolean): void => beginFor(isBegun ? (begunForId ?? last?.id ?? null) : null),
    nameOf,
    routeOf,
    can: doorOf(chosen)?.can ?? null,
  };
};

/** Where an answer is written. What is typed is kept on every stroke. */
export const Composer = (props: {
  row: Row;
  doings: ReactNode;
  /** By which something from elsewhere is put into the answer. */
  putting: RefObject<((text: string) => void) | null>;
  /** Why an answer to somebody has not gone out yet, by a code; null: none waits. */
  heldUpIn: (threadId: string) => string | null;
}) => {
  const { row } = props;
  const ways = useWays(row);
  const { chosen, can } = ways;
  const now = useNow(MINUTE_MS);
  const theme = useTheme();
  const isWide = useWide();
  const { say } = useDeeds();
  const { id } = row;
  const [typed, setTyped] = useState(() => drafts.text(id));
  const [files, holdFiles] = useState<HeldFile[]>([]);
  const [problem, setProblem] = useState('');
  const field = useRef<TextInput>(null);
  const things = useThings(id, setProblem);
  const shelf = things.chosen;
  const all = allFiles({ files, shelf });
  const links = can && goAsLinks(can, all) ? all.length : 0;
  const whole = wholeText({ text: typed.trim(), shelf });
  const over = withLinks(whole, links).length - (can?.textLongest ?? MESSAGE_LONGEST);
  const isEmpty = whole === '' && files.length === 0;
  const { said: route, isShut } = useAsTimeGoes((now) => ways.routeOf(chosen, now));
  const heldUp = chosen ? props.heldUpIn(chosen.id) : null;
  // Where somebody writes by several doors, it is said by which of them this goes out.
  const door = row.threads.length > 1 && chosen ? ways.nameOf(chosen) : '';
  useKeys({ r: () => field.current?.focus() });

  // One of them at a time: each stands where the others do.
  const [open, setOpen] = useState<'replies' | 'shelf' | 'emoji' | null>(null);
  const turn = (one: typeof open): void => setOpen(open === one ? null : one);
  const closeTray = (): void => {
    setOpen(null);
    field.current?.focus();
  };
  const fits = useFits(row);

  const change = (next: string): void => {
    if (next.length > TEXT_HELD_MOST) {
      setProblem(words().conversation.tooMuch(next.length));
      return;
    }
    setTyped(next);
    ways.begin(next !== '');
    drafts.keepText(id, next);
    setProblem('');
    if (next) tellTyping(row.id);
  };

  const setFiles = (next: HeldFile[]): void => {
    holdFiles(next);
    void drafts.keepFiles(id, next);
  };
  useEffect(() => {
    // What was chosen before a reload, or shared by another app; never in the place of what was chosen since.
    void drafts
      .files(id)
      .then((left) => left.length > 0 && holdFiles((held) => (held.length > 0 ? held : left)));
  }, [id]);

  const addFiles = (chosen: Iterable<File>): void => {
    const { files: held, isTooLarge } = withChosen(files, chosen);
    const limit = FILE_LIMITS.largestBytes;
    setProblem(isTooLarge ? shellWords().refusal({ code: 'too-large', limit }) : '');
    setFiles(held);
  };
  const add = useRef(addFiles);
  add.current = addFiles;

  useEffect(() => {
    const paste = (event: ClipboardEvent): void => {
      const isMine = event.target === (field.current as unknown as EventTarget);
      if (isMine && event.clipboardData?.files.length) add.current(event.clipboardData.files);
    };
    window.addEventListener('paste', paste);
    return () => window.removeEventListener('paste', paste);
  }, []);

  const picking = usePicking({
    row,
    field,
    typed,
    change,
    addFiles: (chosen) => add.current(chosen),
    addThings: things.putAll,
    onMissing: () => setProblem(pictureMissing()),
  });

  const { putting } = props;
  useEffect(() => {
    putting.current = picking.putWords;
    return () => {
      putting.current = null;
    };
  });

  const send = (): void => {
    if (over > 0 || isShut) return;
    if (isEmpty) {
      setProblem(shellWords().refusal({ code: 'text-empty' }));
      return;
    }
    if (ways.isUnclear && chosen) {
      setProblem(words().ways.whom(ways.nameOf(chosen)));
      return;
    }
    const [gap] = picking.gaps;
    if (gap) {
      setProblem(gapOpen(gap.name));
      picking.select(gap);
      return;
    }
    say(row, typed, files, chosen?.id, picking.picked ?? undefined, shelf);
    picking.forget();
    setFiles([]);
    things.clear();
    change('');
    field.current?.focus();
  };

  const press = (event: NativeSyntheticEvent<TextInputKeyPressEventData>): void => {
    const key = event.nativeEvent as unknown as KeyboardEvent;
    if (picking.press(key)) {
      event.preventDefault();
      return;
    }
    if (key.key === 'Enter' && (key.ctrlKey || key.metaKey)) {
      event.preventDefault();
      send();
    }
    if (key.key === 'Escape') field.current?.blur();
  };

  const tools = (
    <>
      <GlyphButton
        label={
          open === 'replies'
            ? trayNames().close
            : fits.length > 0
              ? trayNames().openFits(fits.length)
              : trayNames().open
        }
        aria-expanded={open === 'replies'}
        onPress={() => turn('replies')}
      >
        <TrayGlyph size={24} color={theme.ink} aria-hidden />
        {fits.length > 0 ? (
          <View aria-hidden style={[styles.fits, { backgroundColor: theme.moss }]} />
        ) : null}
      </GlyphButton>
      <GlyphButton
        label={open === 'shelf' ? shelfNames().close : shelfNames().open}
        aria-expanded={open === 'shelf'}
        onPress={() => turn('shelf')}
      >
        <ShelfGlyph size={24} color={theme.ink} aria-hidden />
      </GlyphButton>
      <GlyphButton
        label={words().conversation.addFile}
        onPress={() => chooseFiles((chosen) => add.current(chosen))}
      >
        <ImagePlus size={24} color={theme.ink} aria-hidden />
      </GlyphButton>
      {isWide ? (
        <GlyphButton
          label={shellWords().emoji}
          aria-expanded={open === 'emoji'}
          onPress={() => turn('emoji')}
        >
          <Smile size={24} color={theme.ink} aria-hidden />
        </GlyphButton>
      ) : null}
    </>
  );

  return (
    <View style={[styles.composer, { borderColor: theme.ink }]}>
      <Text
        kind="small"
        tone={isShut ? 'brick' : chosen?.isHere && !ways.isUnclear ? 'moss' : 'slate'}
        role="status"
        numberOfLines={isWide ? undefined : 1}
      >
        {ways.isUnclear
          ? words().ways.unclear
          : door && !route.includes(door)
            ? words().route.by(route, door)
            : route}
      </Text>
      {chosen ? (
        <Ways
          row={row}
          chosen={chosen}
          isUnclear={ways.isUnclear}
          nameOf={ways.nameOf}
          routeOf={(thread) => ways.routeOf(thread, now)}
          choose={ways.choose}
        />
      ) : null}
      {heldUp === null ? null : (
        <Text kind="small" tone="ember" role="status">
          {words().route.heldUp(whyInWords(heldUp))}
        </Text>
      )}
      {can?.segmentsMost === undefined ? null : (
        <SegmentsLine text={typed} whole={whole} links={links} change={change} />
      )}
      {links > 0 ? (
        <Text kind="small" tone="slate" role="status">
          {words().ways.asLinks}
        </Text>
      ) : null}
      {problem || over > 0 ? (
        <Text kind="second" tone="brick" role="alert">
          {problem || words().conversation.tooLong(over)}
        </Text>
      ) : null}
      {files.map((file) => (
        <View key={file.id} style={styles.file}>
          <Text kind="second" numberOfLines={1} style={styles.grow}>
            {file.name}
          </Text>
          <GlyphButton
            label={words().conversation.dropFile(file.name)}
            onPress={() => setFiles(files.filter((one) => one !== file))}
          >
            <X size={20} color={theme.ink} aria-hidden />
          </GlyphButton>
        </View>
      ))}
      <ChosenThings things={shelf} takeOut={things.takeOut} />
      {open === 'shelf' ? (
        <ShelfTray
          conversationId={id}
          close={closeTray}
          take={(said) => {
            setOpen(null);
            things.put(said);
            field.current?.focus();
          }}
        />
      ) : null}
      {open === 'replies' ? (
        <ReplyTray
          fits={fits}
          close={closeTray}
          takeFit={(fit) => {
            setOpen(null);
            picking.takeFit(fit);
          }}
          take={(reply) => {
            setOpen(null);
            picking.takeHere(reply);
          }}
        />
      ) : null}
      {open === 'emoji' && isWide ? (
        <EmojiFrame
          pick={picking.putSign}
          missing={() => {
            setOpen(null);
            setProblem(shellWords().emojiMissing);
          }}
          close={closeTray}
        />
      ) : null}
      {picking.list}
      <GapsLine gaps={picking.gaps} go={picking.select} />
      <View style={styles.write}>
        {isWide ? tools : null}
        <MarkedInput
          field={field}
          marks={picking.gaps.map(({ from, to }) => ({ from, to, look: 'gap' }))}
          tallest={TALLEST}
          aria-label={words().conversation.write}
          placeholder={words().conversation.write}
          value={typed}
          onChangeText={(next) => {
            picking.noteCursor();
            change(next);
          }}
          onSelectionChange={picking.noteCursor}
          onKeyPress={press}
          {...picking.aria}
          around={styles.field}
        />
        <Button
          look={isEmpty || isShut ? 'edge' : 'main'}
          label={words().conversation.send}
          disabled={isShut}
          onPress={send}
          style={styles.send}
        />
      </View>
      {isWide ? null : (
        <View style={styles.tools}>
          {tools}
          <View style={styles.doings}>{props.doings}</View>
        </View>
      )}
    </View>
  );
};

const styles = StyleSheet.create({
  composer: { borderTopWidth: 2, paddingHorizontal: 12, paddingTop: 6, paddingBottom: 12, gap: 6 },
  // What is done with the whole conversation stands at the end of what goes into the answer.
  tools: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center' },
  doings: { flexDirection: 'row', flexWrap: 'wrap', marginLeft: 'auto' },
  write: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'flex-end', gap: 6 },
  // Above the button when the text is large.
  field: { flexGrow: 1, flexShrink: 1, flexBasis: 160 * scale, minWidth: 0 },
  send: { marginLeft: 'auto' },
  fits: { position: 'absolute', top: 9, right: 9, width: 8, height: 8 },
  file: { flexDirection: 'row', alignItems: 'center' },
  grow: { flex: 1 },
});
