import { type ReactNode, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { ApiError } from '../data/api';
import { corner } from '../theme/sizes';
import { useTheme } from '../theme/use-theme';
import { words } from '../wording';
import { Button } from './press';
import { Words } from './words';

/** What a form says of a failed request: the sentence, and beside which field. */
export const problemOf = (error: Error | null, field?: string): string => {
  if (!error) return '';
  if (!(error instanceof ApiError)) return words.refusal({ code: 'our-fault' });
  return field === undefined || error.refusal.field === field ? words.refusal(error.refusal) : '';
};

/** The same for what is beside no field of the form. */
export const problemElsewhere = (error: Error | null, fields: readonly string[]): string =>
  error instanceof ApiError && fields.includes(error.refusal.field ?? '') ? '' : problemOf(error);

export const Problem = ({ text }: { text: string }) =>
  text ? (
    <Words kind="second" tone="brick" role="alert">
      {text}
    </Words>
  ) : null;

export const Done = ({ text }: { text: string }) => (
  <Words tone="moss" role="status">
    {text}
  </Words>
);

export const Section = (props: { title: string; children: ReactNode }) => {
  const theme = useTheme();
  return (
    <View
      role="region"
      aria-label={props.title}
      style={[styles.section, { borderColor: theme.seam }]}
    >
      <Words kind="name" role="heading" aria-level={2}>
        {props.title}
      </Words>
      {props.children}
    </View>
  );
};

export const Row = ({ children }: { children: ReactNode }) => (
  <View style={styles.row}>{children}</View>
);

/** A room behind the House screen: its title, and the way back. */
export const Room = (props: { title: string; back?: () => void; children: ReactNode }) => (
  <ScrollView contentContainerStyle={styles.room}>
    {props.back ? (
      <Row>
        <Button look="bare" label={`‹ ${words.rooms.back}`} onPress={props.back} />
      </Row>
    ) : null}
    <Words kind="large" role="heading" aria-level={1}>
      {props.title}
    </Words>
    {props.children}
  </ScrollView>
);

/** Something to copy, in sight, with a button that copies it. */
export const Copy = (props: { text: string; label: string; isCode?: boolean }) => {
  const theme = useTheme();
  const [outcome, setOutcome] = useState<'copied' | 'forbidden' | null>(null);
  const copy = async (): Promise<void> => {
    try {
      // Browsers give a clipboard to secure pages only.
      await navigator.clipboard.writeText(props.text);
      setOutcome('copied');
    } catch {
      setOutcome('forbidden');
    }
  };
  return (
    <View style={styles.copy}>
      <Words
        kind="second"
        selectable
        style={[
          styles.code,
          { backgroundColor: theme.linen, borderColor: theme.edge },
          props.isCode ? styles.mono : null,
        ]}
      >
        {props.text}
      </Words>
      <Row>
        <Button
          label={outcome === 'copied' ? words.door.copied : props.label}
          onPress={() => void copy()}
        />
      </Row>
      <Problem text={outcome === 'forbidden' ? words.door.notCopied : ''} />
    </View>
  );
};

const styles = StyleSheet.create({
  section: { gap: 12, paddingBottom: 20, borderBottomWidth: 1 },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 12 },
  room: { padding: 16, gap: 20, maxWidth: 720, width: '100%', alignSelf: 'center' },
  copy: { gap: 8 },
  code: { padding: 12, borderWidth: 1, borderRadius: corner },
  mono: { fontFamily: 'monospace' },
});
