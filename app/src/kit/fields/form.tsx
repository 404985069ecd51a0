import { type ReactNode, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from '../press';
import { Text } from '../text';
import { corner } from '../theme/sizes';
import { useTheme } from '../theme/use-theme';
import { kitWords } from '../words';

export const Problem = ({ text }: { text: string }) =>
  text ? (
    <Text kind="second" tone="brick" role="alert">
      {text}
    </Text>
  ) : null;

export const Done = ({ text }: { text: string }) => (
  <Text tone="moss" role="status">
    {text}
  </Text>
);

export const Section = (props: { title: string; children: ReactNode }) => {
  const theme = useTheme();
  return (
    <View
      role="region"
      aria-label={props.title}
      style={[styles.section, { borderColor: theme.seam }]}
    >
      <Text kind="name" role="heading" aria-level={2}>
        {props.title}
      </Text>
      {props.children}
    </View>
  );
};

export const Row = ({ children }: { children: ReactNode }) => (
  <View style={styles.row}>{children}</View>
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
      <Text
        kind="second"
        selectable
        style={[
          styles.code,
          { backgroundColor: theme.linen, borderColor: theme.edge },
          props.isCode ? styles.mono : null,
        ]}
      >
        {props.text}
      </Text>
      <Row>
        <Button
          label={outcome === 'copied' ? kitWords().copied : props.label}
          onPress={() => void copy()}
        />
      </Row>
      <Problem text={outcome === 'forbidden' ? kitWords().notCopied : ''} />
    </View>
  );
};

const styles = StyleSheet.create({
  section: { gap: 12, paddingBottom: 20, borderBottomWidth: 1 },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 12 },
  copy: { gap: 8 },
  code: { padding: 12, borderWidth: 1, borderRadius: corner },
  mono: { fontFamily: 'monospace' },
});
