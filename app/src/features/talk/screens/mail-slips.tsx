import type { Entry, FileMention } from '@porch/core/conversation';
import { type ReactNode, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { corner } from '../../../kit/theme/sizes';
import { useTheme } from '../../../kit/theme/use-theme';
import { momentInWords } from '../../../kit/times';
import { kitWords } from '../../../kit/words';
import { useOutbox } from '../../../shell/live/outbox';
import { useDeeds } from '../../deeds/data/deeds';
import { usePicturesElsewhere } from '../data/pictures-elsewhere';
import { useRest } from '../data/rest';
import { words } from '../words';
import type { RollFacts } from './roll-facts';

const RestText = ({ conversationId, entryId }: { conversationId: string; entryId: string }) => {
  const theme = useTheme();
  const rest = useRest(conversationId, entryId);
  const { loading, failed } = kitWords();
  if (rest.isError && !rest.data) {
    return (
      <View role="alert" style={styles.failed}>
        <Text kind="second">{failed.more}</Text>
        <Button label={failed.retry} onPress={() => void rest.refetch()} />
      </View>
    );
  }
  return (
    <Text kind="second" tone="slate" style={[styles.rest, { borderColor: theme.edge }]}>
      {rest.data?.text ?? loading}
    </Text>
  );
};

/** What else stood in the mail or in the long text that a message came in, for whoever wants to read it. */
export const RestOfMail = ({ entry }: { entry: Entry & { kind: 'visitor-said' } }) => {
  const [isOpen, setOpen] = useState(false);
  const { rest, more } = words().conversation;
  const { show, hide } = entry.isMail ? rest : more;
  return (
    <View style={styles.unfold}>
      <Button
        look="bare"
        label={isOpen ? hide : show}
        aria-expanded={isOpen}
        onPress={() => setOpen(!isOpen)}
      />
      {isOpen ? <RestText conversationId={entry.conversationId} entryId={entry.id} /> : null}
    </View>
  );
};

/** Pictures of a mail that lie elsewhere: whoever has them learns that it is read, so nobody asks but whoever wants to. */
export const PicturesOfMail = (props: {
  entry: Entry & { kind: 'visitor-said' };
  show: (files: readonly FileMention[]) => ReactNode;
}) => {
  const { entry, show } = props;
  const [isAskedFor, setAskedFor] = useState(false);
  const found = usePicturesElsewhere(entry, isAskedFor);
  const said = words().conversation.elsewhere;
  if (!isAskedFor) {
    return (
      <View style={styles.unfold}>
        <Button
          look="bare"
          label={said.show(entry.pictures ?? 0)}
          onPress={() => setAskedFor(true)}
        />
        <Text kind="small" tone="slate" style={styles.under}>
          {said.why}
        </Text>
      </View>
    );
  }
  if (found.isError) {
    return (
      <View role="alert" style={styles.failed}>
        <Text kind="second">{kitWords().failed.more}</Text>
        <Button label={kitWords().failed.retry} onPress={() => void found.refetch()} />
      </View>
    );
  }
  const { files = [], missing = 0 } = found.data ?? {};
  return (
    <>
      {found.isPending ? <Text kind="second">{kitWords().loading}</Text> : show(files)}
      {missing > 0 ? (
        <Text kind="second" tone="slate" role="status">
          {said.missing(missing)}
        </Text>
      ) : null}
      {!found.isPending && files.length === 0 && missing === 0 ? (
        <Text kind="second" tone="slate" role="status">
          {said.none}
        </Text>
      ) : null}
    </>
  );
};

type Held = Entry & { kind: 'held-back' };

/** A mail from another address than we wrote to: what it says, and the question whose it is. */
export const AskedSlip = ({ entry, facts }: { entry: Held; facts: RollFacts }) => {
  const theme = useTheme();
  const { ownMail } = useDeeds();
  const { row, decided, now, zone } = facts;
  const onItsWay = useOutbox(
    ({ queue }) =>
      queue.find(({ load }) => load.do === 'own-mail' && load.of === entry.id)?.state ?? null,
  );
  const said = words().conversation;
  const verdict = decided.get(entry.id);
  return (
    <View style={[styles.slip, { borderColor: theme.edge }]}>
      <Text kind="second">
        {verdict === undefined ? said.asked(entry.from) : said.askedFrom(entry.from)}
        {' · '}
        {momentInWords(entry.at, now, zone)}
      </Text>
      <Text {...{ dir: 'auto' }}>{`“${entry.says}”`}</Text>
      {onItsWay ? (
        <Text kind="small" tone="slate" role="status">
          {words().states[onItsWay]}
        </Text>
      ) : null}
      {onItsWay || verdict === true ? null : (
        <View style={styles.doings}>
          <Button
            look={verdict === undefined ? 'edge' : 'bare'}
            label={verdict === undefined ? said.isTheirs : said.isTheirsAfterAll}
            onPress={() => ownMail(row, entry.id, true)}
          />
          {verdict === undefined ? (
            <Button
              look="bare"
              label={said.isNotTheirs}
              onPress={() => ownMail(row, entry.id, false)}
            />
          ) : null}
        </View>
      )}
    </View>
  );
};

const styles = StyleSheet.create({
  unfold: { alignItems: 'flex-start', gap: 4, marginLeft: -12 },
  rest: { alignSelf: 'stretch', marginLeft: 12, borderLeftWidth: 2, paddingLeft: 10 },
  under: { marginLeft: 12 },
  failed: { gap: 6, marginLeft: 12, alignItems: 'flex-start' },
  slip: {
    marginHorizontal: 12,
    marginVertical: 6,
    padding: 12,
    gap: 6,
    borderWidth: 1,
    borderRadius: corner,
  },
  doings: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
});
