import { type ComponentProps, useState } from 'react';
import { Field } from './field';

const linesOf = (text: string): string[] => text.split('\n').filter((line) => line.trim());

type Props = Omit<ComponentProps<typeof Field>, 'value' | 'onChangeText' | 'multiline'> & {
  lines: readonly string[];
  onChangeLines: (lines: string[]) => void;
};

/**
 * A list that is written one a line. What is typed stands as it was typed, empty lines too, for as long
 * as it comes to the same list; when the list changes elsewhere, that is what is shown.
 */
export const LinesField = ({ lines, onChangeLines, ...rest }: Props) => {
  const [typed, setTyped] = useState(lines.join('\n'));
  const isSame = linesOf(typed).join('\n') === lines.join('\n');
  return (
    <Field
      multiline
      numberOfLines={3}
      {...rest}
      value={isSame ? typed : lines.join('\n')}
      onChangeText={(text) => {
        setTyped(text);
        onChangeLines(linesOf(text));
      }}
    />
  );
};
