import type { Refusal } from '@porch/contract/errors';
import { type Entry, type FileMention, filesOf, SCREEN } from '@porch/core/conversation';
import { sizeText } from '@porch/core/files';
import { pieces } from '@porch/core/links';
import { summary } from '@porch/core/text';
import FileDown from 'lucide-react-native/icons/file-down';
import Footprints from 'lucide-react-native/icons/footprints';
import NotebookPen from 'lucide-react-native/icons/notebook-pen';
import { memo } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { OwnMark } from '../../../kit/drawn/own-mark';
import { Photo } from '../../../kit/drawn/photo';
import { Problem } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { corner, touch } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { exactly, momentInWords } from '../../../kit/times';
import type { DeedParcel } from '../../../shell/live/outbox';
import { fileAddress } from '../../../shell/pictures/addresses';
import { problemOf } from '../../../shell/session/problems';
import { shellWords } from '../../../shell/words';
import { whyInWords } from '../../../shell/words/why';
import { keepName } from '../../replies/parts/use-keep-answer';
import { ShelfCard } from '../../shelf/parts/shelf-card';
import { useSendAgain } from '../data/again';
import { withoutGone } from '../data/without';
import { words } from '../words';
import { CallBackPart, CallPart, Sound } from './call-part';
import { AskedSlip, PicturesOfMail, RestOfMail } from './mail-slips';
import type { RollFacts } from './roll-facts';

const PICTURE_WIDEST = 300;

const Linked = ({ text }: { text: string }) => (
  <Text {...{ dir: 'auto' }} style={styles.words}>
    {pieces(text).map((piece) =>
      piece.href ? (
        <Text
          key={piece.at}
          role="link"
          style={styles.link}
          {...{ href: piece.href, hrefAttrs: { target: '_blank', rel: 'noopener noreferrer' } }}
        >
          {piece.text}
        </Text>
      ) : (
        piece.text
      ),
    )}
  </Text>
);

const Picture = ({ file, open }: { file: FileMention; open: (file: FileMention) => void }) => {
  const theme = useTheme();
  const { width = 4, height = 3 } = file.picture ?? {};
  const shown = Math.min(PICTURE_WIDEST, width);
  return (
    <Pressable
      role="button"
      aria-label={words().conversation.openPicture(file.name)}
      onPress={() => open(file)}
      style={[styles.picture, { backgroundColor: theme.seam }]}
    >
      <Photo
        source={fileAddress(file.id, 'thumbnail')}
        alt=""
        style={{ width: shown, height: (shown * height) / width, maxWidth: '100%' }}
      />
    </Pressable>
  );
};

const OtherFile = ({ file }: { file: FileMention }) => {
  const theme = useTheme();
  const size = sizeText(file.sizeBytes);
  return (
    <Pressable
      role="link"
      aria-label={words().conversation.download(file.name, size)}
      {...{ href: fileAddress(file.id, 'whole'), hrefAttrs: { download: file.name } }}
      style={[styles.file, { borderColor: theme.edge }]}
    >
      <FileDown size={22} color={theme.ink} aria-hidden />
      <Text numberOfLines={1} style={styles.grow}>
        {file.name}
      </Text>
      <Text kind="small" tone="slate">
        {size}
      </Text>
    </Pressable>
  );
};

const Files = (props: { files: readonly FileMention[]; open: (file: FileMention) => void }) =>
  props.files.map((file) =>
    file.picture ? (
      <Picture key={file.id} file={file} open={props.open} />
    ) : file.type.startsWith('audio/') ? (
      <Sound key={file.id} file={file} />
    ) : (
      <OtherFile key={file.id} file={file} />
    ),
  );

/** One chamfered corner marks what a visitor wrote. */
const Chamfer = () => {
  const theme = useTheme();
  return (
    <View
      aria-hidden
      style={[styles.chamfer, { borderTopColor: theme.paper, borderLeftColor: 'transparent' }]}
    />
  );
};

/** How far an answer has come: as its network says of each or, on a screen, as far as somebody has read. */
const ReachedMark = ({ entry, facts }: { entry: Entry; facts: RollFacts }) => {
  const { row, receipts, mails } = facts;
  const mailed = mails.get(entry.seq);
  const receipt = receipts.find(({ seq }) => seq === entry.seq);
  const thread = row.threads.find(({ id }) => id === entry.threadId);
  const { visitorReadSeq, visitorHasSeq } = thread ?? row.state;
  const onScreen =
    entry.seq <= visitorReadSeq ? 'read' : entry.seq <= visitorHasSeq ? 'arrived' : 'sent';
  // Of what a network carries nothing is known until it has said something.
  const isCarried = entry.kind === 'team-said' && entry.way !== SCREEN;
  const state = receipt?.step ?? (isCarried ? 'waiting' : onScreen);
  const isThere = state === 'read' || (state === 'arrived' && !mailed);
  if (mailed !== undefined && !isThere) {
    return (
      <Text kind="small" tone={mailed ? 'moss' : 'brick'}>
        {mailed ? words().states.mailed : words().states.notArrived}
      </Text>
    );
  }
  const tone = { waiting: 'slate', sent: 'slate', arrived: 'moss', read: 'moss', failed: 'brick' };
  return (
    <Text kind="small" tone={tone[state] as 'slate' | 'moss' | 'brick'}>
      {state === 'waiting' ? words().states.goingOut : words().states[state]}
      {/* Why something waits is said where the next answer is written. */}
      {receipt?.why && state !== 'waiting' ? ` · ${whyInWords(receipt.why)}` : ''}
    </Text>
  );
};

/** What a network did not take may be tried again. */
const TryAgain = ({ entry, facts }: { entry: Entry; facts: RollFacts }) => {
  const { mutate, isPending, error } = useSendAgain(entry);
  const isFailed = facts.receipts.some(({ seq, step }) => seq === entry.seq && step === 'failed');
  if (!isFailed) return null;
  return (
    <View style={styles.row}>
      <Button
        label={words().conversation.sendAgain}
        disabled={isPending}
        onPress={() => mutate(undefined)}
      />
      <Problem text={problemOf(error)} />
    </View>
  );
};

/** The place of a file that is still fetched from its network, or could not be had there. */
const FileOnItsWay = ({
  entry,
  name,
  isMissing,
  canRetry,
}: {
  entry: Entry;
  name: string;
  isMissing: boolean;
  canRetry: boolean;
}) => {
  const { mutate, isPending, isSuccess, error } = useSendAgain(entry);
  const said = words().conversation;
  if (!isMissing || isSuccess) {
    return (
      <Text kind="second" tone="slate" role="status">
        {isMissing ? said.comingAgain(name) : said.coming(name)}
      </Text>
    );
  }
  return (
    <View style={styles.row}>
      <Text kind="second" tone="ember">
        {said.missing(name)}
      </Text>
      {canRetry ? (
        <Button label={said.sendAgain} disabled={isPending} onPress={() => mutate(undefined)} />
      ) : null}
      <Problem text={problemOf(error)} />
    </View>
  );
};

const VisitorSlip = ({
  entry,
  facts,
}: {
  entry: Entry & { kind: 'visitor-said' };
  facts: RollFacts;
}) => {
  const theme = useTheme();
  const { row, now, zone } = facts;
  const thread = row.threads.find(({ id }) => id === entry.threadId);
  const amended = facts.amended.get(entry.seq);
  const came = facts.came.get(entry.seq);
  const text = amended === undefined ? entry.text : amended;
  const saidAt = entry.saidAt ?? entry.at;
  const door = row.threads.length > 1 && thread ? facts.doorName(thread.doorId) : '';
  return (
    <View style={[styles.slip, { backgroundColor: theme.linen }]}>
      <Chamfer />
      <View style={styles.top}>
        {row.state.name ? null : <OwnMark id={row.id} size={16} />}
        <Text kind="label">{(row.threads.length > 1 && thread?.name) || facts.name}</Text>
        <Text kind="small" tone="slate">
          {momentInWords(saidAt, now, zone)} ·{' '}
          {entry.isMail ? words().conversation.byMail : facts.byDoor(thread?.doorId ?? '')}
          {entry.via ? ` · ${words().conversation.sentBy(entry.via)}` : ''}
          {door && !facts.byDoor(thread?.doorId ?? '').includes(door) ? ` (${door})` : ''}
          {entry.setAside ? ` · ${words().conversation.setAside[entry.setAside]}` : ''}
          {entry.tapped && !entry.setAside
            ? ` · ${words().conversation.tappedFor(entry.tapped.passedTo ? facts.memberName(entry.tapped.passedTo) : '')}`
            : ''}
          {entry.note && !entry.setAside ? ` · ${words().conversation.leftAsNote}` : ''}
          {amended ? ` · ${words().conversation.changed}` : ''}
        </Text>
      </View>
      {text === null ? (
        <Text tone="slate">{words().conversation.withdrawn}</Text>
      ) : (
        <>
          {entry.call ? <CallPart seconds={entry.call.seconds} phone={row.state.phone} /> : null}
          {entry.callBack ? (
            <CallBackPart
              phone={entry.callBack.phone}
              time={entry.callBack.at === null ? null : exactly(entry.callBack.at, zone)}
            />
          ) : null}
          {entry.subject && entry.subject !== text ? (
            <Text kind="label" {...{ dir: 'auto' }}>
              {entry.subject}
            </Text>
          ) : null}
          {text ? <Linked text={text} /> : null}
          <Files files={filesOf(entry, came)} open={facts.openPicture} />
          {[...(entry.coming ?? []).entries()].map(([place, name]) =>
            came?.get(place)?.file ? null : (
              <FileOnItsWay
                // Another word on it makes it another: what was asked of it is over.
                key={`${place} ${came?.get(place)?.seq ?? 0}`}
                entry={entry}
                name={name}
                isMissing={came?.has(place) ?? false}
                canRetry={came?.get(place)?.canRetry ?? false}
              />
            ),
          )}
          {entry.pictures ? (
            <PicturesOfMail
              entry={entry}
              show={(files) => <Files files={files} open={facts.openPicture} />}
            />
          ) : null}
          {entry.missing?.map((name) => (
            <Text key={name} kind="second" tone="ember">
              {words().conversation.missing(name)}
            </Text>
          ))}
        </>
      )}
      {entry.hasRest ? <RestOfMail entry={entry} /> : null}
    </View>
  );
};

const TeamSlip = ({ entry, facts }: { entry: Entry & { kind: 'team-said' }; facts: RollFacts }) => {
  const theme = useTheme();
  const { now, zone, memberName } = facts;
  return (
    <View style={[styles.slip, styles.ours, { borderColor: theme.ink }]}>
      <View style={styles.top}>
        <Text kind="label">{memberName(entry.memberId)}</Text>
        <Text kind="small" tone="slate" style={styles.grow}>
          {momentInWords(entry.at, now, zone)}
        </Text>
        <ReachedMark entry={entry} facts={facts} />
        {entry.text ? (
          <Pressable
            role="button"
            aria-label={keepName()}
            hitSlop={12}
            onPress={() => facts.keepAnswer(entry.text)}
            style={styles.keep}
          >
            <NotebookPen size={18} color={theme.slate} aria-hidden />
          </Pressable>
        ) : null}
      </View>
      {entry.text ? <Linked text={entry.text} /> : null}
      <Files files={entry.files} open={facts.openPicture} />
      {entry.shelf?.map((said) => (
        <ShelfCard key={said.id} said={said} />
      ))}
      <TryAgain entry={entry} facts={facts} />
    </View>
  );
};

const Waypoint = ({ entry, facts }: { entry: Entry & { kind: 'waypoint' }; facts: RollFacts }) => {
  const theme = useTheme();
  const { title, host } = facts.pageOf(entry.page);
  return (
    <View style={styles.mark}>
      <Footprints size={16} color={theme.slate} aria-hidden />
      <Text kind="small" tone="slate" numberOfLines={1} style={styles.shrink}>
        {title || words().who.elsewhere(host)} · {momentInWords(entry.at, facts.now, facts.zone)}
      </Text>
    </View>
  );
};

/** What a small line of the roll says, without when; '' for what is drawn otherwise. */
export const markInWords = (
  entry: Entry,
  { row, isSite, memberName, now, zone }: RollFacts,
): string => {
  switch (entry.kind) {
    case 'details': {
      const said = words().conversation;
      // What a network says of them was left in no guest book.
      const thread = row.threads.find(({ id }) => id === entry.threadId);
      const tell = thread && !isSite(thread.doorId) ? said.knownThere : said.gave;
      return tell(
        [
          entry.name,
          entry.email,
          entry.phone,
          ...(entry.own ?? [])
            .filter(({ value }) => value)
            .map((one) => `${one.label} ${one.value}`),
        ]
          .filter(Boolean)
          .join(', '),
      );
    }
    case 'consented':
      return words().conversation.consented(entry.text);
    case 'wrapped-up':
      return entry.memberId
        ? words().conversation.wrappedUp(memberName(entry.memberId))
        : words().conversation.enough;
    case 'put-by':
      return words().conversation.putByUntil(
        memberName(entry.memberId),
        momentInWords(entry.until, now, zone),
      );
    case 'taken-back':
      return words().conversation.takenBack(memberName(entry.memberId));
    case 'held-back':
      return words().conversation.heldBack[entry.why](entry.from);
    case 'visitor-changed':
      return words().conversation.theyChanged;
    case 'visitor-withdrew':
      return words().conversation.theyWithdrew;
    case 'stopped': {
      const said = words().conversation;
      return entry.isStopped ? said.stopped(entry.word) : said.started(entry.word);
    }
    case 'held-decided':
      return words().conversation.decided(memberName(entry.memberId), entry.isTheirs);
    case 'returned':
      return words().conversation.returned;
    case 'mailed': {
      const said = words().conversation;
      if (entry.failed === undefined) return said.mailed(entry.to);
      const noWay = said.noWays[entry.failed];
      if (noWay) return noWay;
      return said.notMailed(entry.to, said.mailWhys[entry.failed] ?? said.mailWhys.other ?? '');
    }
    case 'mail-stopped':
      return words().conversation.mailStopped(entry.address);
    case 'owed': {
      const said = words().conversation.owed;
      const time = momentInWords(entry.dueAt, now, zone);
      if (entry.why !== 'hand') return said[entry.why](time);
      return said.hand(memberName(entry.memberId ?? ''), entry.what, time);
    }
    case 'owed-changed':
      return words().conversation.owedChanged(
        memberName(entry.memberId ?? ''),
        entry.what,
        momentInWords(entry.dueAt, now, zone),
      );
    case 'owed-done':
      return words().conversation.owedDone(entry.memberId ? memberName(entry.memberId) : '');
    case 'owed-undone':
      return words().conversation.owedUndone(memberName(entry.memberId));
    case 'door-sign':
      if (entry.order) return words().conversation.order(entry.text.replaceAll('\n', ' · '));
      if (entry.greeting) {
        const { memberId } = entry.greeting;
        return words().conversation.greeted(entry.text, memberId ? memberName(memberId) : '');
      }
      return entry.card
        ? words().conversation.askedOften(summary(entry.text, []))
        : words().conversation.doorSign(entry.text);
    case 'turned-soon':
      return words().conversation.turnedSoon(momentInWords(entry.until, now, zone));
    case 'joined':
      if (entry.memberId) return words().conversation.joined(memberName(entry.memberId));
      return entry.byCode ? words().conversation.joinedByCode : words().conversation.joinedByItself;
    case 'parted':
      return words().conversation.parted[entry.side](
        entry.memberId ? memberName(entry.memberId) : words().conversation.theHouse,
      );
    case 'bygone':
      return words().conversation.bygone(entry.was);
    default:
      return '';
  }
};

/** One entry of the roll, drawn as what it is. */
export const RollEntry = memo(({ entry, facts }: { entry: Entry; facts: RollFacts }) => {
  if (entry.kind === 'visitor-said') return <VisitorSlip entry={entry} facts={facts} />;
  if (entry.kind === 'team-said') return <TeamSlip entry={entry} facts={facts} />;
  if (entry.kind === 'held-back' && entry.says !== undefined) {
    return <AskedSlip entry={entry} facts={facts} />;
  }
  if (entry.kind === 'waypoint') return <Waypoint entry={entry} facts={facts} />;
  return (
    <View style={styles.mark}>
      <Text kind="small" tone="slate">
        {markInWords(entry, facts)} · {momentInWords(entry.at, facts.now, facts.zone)}
      </Text>
    </View>
  );
});

interface UnsentProps {
  parcel: DeedParcel;
  refusal?: Refusal;
  facts: RollFacts;
  retry: () => void;
  drop: () => void;
  putByAgain: () => void;
  /** Sends it anew, without what is not on the shelf any more. */
  without: (load: Extract<DeedParcel['load'], { do: 'say' }>) => void;
}

/** What was not done, why, and what can be done about it. */
const Refused = ({ parcel, refusal, retry, drop, putByAgain, without }: UnsentProps) => {
  const said = words().conversation;
  const isSay = parcel.load.do === 'say';
  const left = withoutGone(parcel, refusal);
  return (
    <View role="alert">
      <Text kind="second" tone="brick">
        {shellWords().refusal(refusal ?? { code: 'our-fault' })}
      </Text>
      <View style={styles.row}>
        {parcel.load.do === 'put-by' ? (
          <Button label={words().notDone.putByAgain} onPress={putByAgain} />
        ) : left ? (
          <Button label={said.without} onPress={() => without(left)} />
        ) : (
          <Button label={said.retry} onPress={retry} />
        )}
        <Button look="bare" label={isSay ? said.drop : words().notDone.leave} onPress={drop} />
      </View>
    </View>
  );
};

/** A deed other than an answer that the house refused: it did not happen. */
const UndoneSlip = (props: UnsentProps) => {
  const theme = useTheme();
  const { now, zone } = props.facts;
  const { load } = props.parcel;
  const named = words().notDone.deeds;
  const what =
    load.do === 'put-by' ? named['put-by'](momentInWords(load.until, now, zone)) : named[load.do];
  return (
    <View style={[styles.slip, styles.ours, { borderColor: theme.brick }]}>
      <Text kind="label">{what}</Text>
      <Refused {...props} />
    </View>
  );
};

/** An answer that is still on this device, or a deed that was refused. */
export const UnsentSlip = (props: UnsentProps) => {
  const theme = useTheme();
  const { parcel } = props;
  if (parcel.load.do !== 'say') return <UndoneSlip {...props} />;
  const isFailed = parcel.state === 'failed';
  return (
    <View style={[styles.slip, styles.ours, { borderColor: isFailed ? theme.brick : theme.edge }]}>
      <View style={styles.top}>
        <Text kind="label" style={styles.grow}>
          {words().conversation.team}
        </Text>
        <Text kind="small" tone={isFailed ? 'brick' : 'slate'}>
          {words().states[parcel.state]}
        </Text>
      </View>
      {parcel.load.text ? <Linked text={parcel.load.text} /> : null}
      {parcel.load.files.map((file) => (
        <Text key={file.id} kind="second" tone="slate">
          {file.name}
        </Text>
      ))}
      {parcel.load.shown?.map((said) => (
        <ShelfCard key={said.id} said={said} lines={2} />
      ))}
      {isFailed ? <Refused {...props} /> : null}
    </View>
  );
};

const styles = StyleSheet.create({
  slip: {
    marginHorizontal: 12,
    marginVertical: 6,
    padding: 12,
    gap: 6,
    borderRadius: corner,
    overflow: 'hidden',
  },
  ours: { borderWidth: 2 },
  chamfer: {
    position: 'absolute',
    top: 0,
    right: 0,
    width: 0,
    height: 0,
    borderTopWidth: 16,
    borderLeftWidth: 16,
  },
  top: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'baseline', gap: 8, paddingRight: 16 },
  words: { overflow: 'visible' },
  link: { textDecorationLine: 'underline' },
  keep: {
    alignSelf: 'center',
    minWidth: 24,
    minHeight: 24,
    alignItems: 'center',
    justifyContent: 'center',
  },
  picture: { alignSelf: 'flex-start', borderRadius: corner, overflow: 'hidden' },
  file: {
    minHeight: touch,
    flexDirection: 'row',
    alignItems: 'center',
    gap: 8,
    paddingHorizontal: 12,
    borderWidth: 1,
    borderRadius: corner,
  },
  mark: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: 6,
    paddingHorizontal: 24,
    paddingVertical: 4,
  },
  grow: { flex: 1 },
  shrink: { flexShrink: 1 },
  row: { flexDirection: 'row', gap: 8, marginTop: 8 },
});
