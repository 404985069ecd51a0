import { Choice } from '../../../kit/fields/choice';
import { Field } from '../../../kit/fields/field';
import { problemOf } from '../../../shell/session/problems';
import type { NetworkWords } from '../kinds/words';
import { doorWords } from '../words/network';

/** What is asked of an owner of a network, field by field. A key that is there already is not shown. */
export const NetworkFields = (props: {
  said: NetworkWords;
  fields: readonly { id: string; isSecret: boolean; isSet?: boolean; options?: string[] }[];
  typed: Readonly<Record<string, string>>;
  error: Error | null;
  change: (id: string, text: string) => void;
}) =>
  props.fields.map(({ id, isSecret, isSet = false, options }) => {
    const { label = id, more, options: called } = props.said.fields[id] ?? {};
    if (options) {
      return (
        <Choice
          key={id}
          label={label}
          options={options.map((one) => [one, called?.[one] ?? one])}
          value={props.typed[id] || (options[0] ?? '')}
          onChange={(chosen) => props.change(id, chosen)}
        />
      );
    }
    return (
      <Field
        key={id}
        label={label}
        more={more}
        value={props.typed[id] ?? ''}
        placeholder={isSecret && isSet ? doorWords().keyKept : undefined}
        secureTextEntry={isSecret}
        autoCapitalize="none"
        autoCorrect={false}
        autoComplete="off"
        maxLength={1_000}
        problem={problemOf(props.error, id)}
        onChangeText={(text) => props.change(id, text)}
      />
    );
  });
