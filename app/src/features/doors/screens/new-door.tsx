import { router } from 'expo-router';
import { useState } from 'react';
import { Field } from '../../../kit/fields/field';
import { Problem } from '../../../kit/fields/form';
import { Select } from '../../../kit/fields/select';
import { languageName } from '../../../kit/names';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { HousePage } from '../../../shell/frame/house-page';
import { problemElsewhere, problemOf } from '../../../shell/session/problems';
import { useNewDoor } from '../data/doors';
import { shippedCodes } from '../parts/shipped-languages';
import { words } from '../words';

/** Adds a website door. */
export const NewDoor = () => {
  const [name, setName] = useState('');
  const [language, setLanguage] = useState('en');
  const { mutate, error, isPending } = useNewDoor();
  return (
    <HousePage title={words().newTitle} isBehind>
      <Text tone="slate">{words().newMore}</Text>
      <Field
        label={words().name}
        more={words().nameMore}
        value={name}
        maxLength={80}
        problem={problemOf(error, 'name')}
        onChangeText={setName}
      />
      <Select
        label={words().language}
        options={shippedCodes.map((code) => [code, languageName(code)])}
        value={language}
        onChange={setLanguage}
      />
      <Problem text={problemElsewhere(error, ['name'])} />
      <Button
        look="main"
        label={words().make}
        disabled={isPending}
        onPress={() =>
          mutate({ name, language }, { onSuccess: ({ id }) => router.replace(`/house/door/${id}`) })
        }
      />
    </HousePage>
  );
};
