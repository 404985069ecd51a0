import type { ReactNode } from 'react';
import { Pressable, type PressableProps, StyleSheet, type ViewStyle } from 'react-native';
import { Text } from './text';
import { corner, touch } from './theme/sizes';
import { useTheme } from './theme/use-theme';

interface ButtonProps extends Omit<PressableProps, 'children' | 'style'> {
  label: string;
  /** `main` for the one thing to do, `edge` for the others, `bare` for the least. */
  look?: 'main' | 'edge' | 'bare';
  tone?: 'ink' | 'brick';
  icon?: ReactNode;
  style?: ViewStyle;
}

/** A button with words on it. */
export const Button = ({
  label,
  look = 'edge',
  tone = 'ink',
  icon,
  style,
  ...rest
}: ButtonProps) => {
  const theme = useTheme();
  const looks: Record<'main' | 'edge' | 'bare', ViewStyle> = {
    main: { backgroundColor: theme.ink, borderColor: theme.ink },
    edge: { borderColor: theme[tone] },
    bare: { borderColor: 'transparent', paddingHorizontal: 8 },
  };
  return (
    <Pressable
      role="button"
      {...rest}
      style={[styles.button, looks[look], rest.disabled ? styles.off : null, style]}
    >
      {icon}
      <Text
        kind="label"
        tone={look === 'main' ? 'onInk' : tone}
        style={look === 'bare' ? styles.underlined : undefined}
      >
        {label}
      </Text>
    </Pressable>
  );
};

interface GlyphButtonProps extends Omit<PressableProps, 'children' | 'style'> {
  label: string;
  children: ReactNode;
  style?: ViewStyle;
}

/** A button with only a glyph on it; its label is for the screen reader. */
export const GlyphButton = ({ label, children, style, ...rest }: GlyphButtonProps) => (
  <Pressable role="button" aria-label={label} {...rest} style={[styles.glyph, style]}>
    {children}
  </Pressable>
);

const styles = StyleSheet.create({
  button: {
    minHeight: touch,
    flexDirection: 'row',
    alignItems: 'center',
    justifyContent: 'center',
    gap: 8,
    paddingHorizontal: 16,
    paddingVertical: 10,
    borderWidth: 2,
    borderRadius: corner,
  },
  off: { opacity: 0.5 },
  underlined: { textDecorationLine: 'underline' },
  glyph: { minWidth: touch, minHeight: touch, alignItems: 'center', justifyContent: 'center' },
});
