import type { ReactNode } from 'react';
import { Text as PlainText, StyleSheet, type TextProps } from 'react-native';
import { headings, plain, text } from './theme/sizes';
import { useTheme } from './theme/use-theme';

type Tone = 'ink' | 'slate' | 'ember' | 'moss' | 'brick' | 'iris' | 'onInk';
type Kind = 'title' | 'large' | 'name' | 'body' | 'second' | 'small' | 'label';

interface Props extends TextProps {
  kind?: Kind;
  tone?: Tone;
  children: ReactNode;
}

/** All text of the app: one of a few sizes, one of the palette's text colours. */
export const Text = ({ kind = 'body', tone = 'ink', style, ...rest }: Props) => {
  const theme = useTheme();
  return <PlainText {...rest} style={[styles[kind], { color: theme[tone] }, style]} />;
};

const styles = StyleSheet.create({
  title: {
    fontFamily: headings,
    fontSize: text.title,
    fontWeight: '600',
    lineHeight: text.title * 1.25,
  },
  large: {
    fontFamily: headings,
    fontSize: text.large,
    fontWeight: '600',
    lineHeight: text.large * 1.2,
  },
  name: {
    fontFamily: headings,
    fontSize: text.name,
    fontWeight: '600',
    lineHeight: text.name * 1.3,
  },
  body: { fontFamily: plain, fontSize: text.body, lineHeight: text.body * 1.45 },
  second: { fontFamily: plain, fontSize: text.second, lineHeight: text.second * 1.4 },
  label: {
    fontFamily: plain,
    fontSize: text.second,
    fontWeight: '600',
    lineHeight: text.second * 1.4,
  },
  small: {
    fontFamily: plain,
    fontSize: text.small,
    lineHeight: text.small * 1.4,
    fontVariant: ['tabular-nums'],
  },
});
