import { router } from 'expo-router';
import { useState } from 'react';
import { useNewDoor } from '../../data/house';
import { Field } from '../../parts/field';
import { Problem, problemElsewhere, problemOf, Room } from '../../parts/form';
import { Button } from '../../parts/press';
import { Select } from '../../parts/select';
import { Words } from '../../parts/words';
import { words } from '../../wording';

const said = words.door;

/** The languages that ship; kept in step with the texts by a test. */
export const shippedCodes = ['en', 'es', 'fr', 'de', 'it', 'pt', 'nl', 'pl'] as const;

export const languageName = (code: string): string => {
  try {
    return new Intl.DisplayNames(['en'], { type: 'language' }).of(code) ?? code;
  } catch {
    return code;
  }
};

/** Adds a website door. */
export const NewDoor = () => {
  const [name, setName] = useState('');
  const [language, setLanguage] = useState('en');
  const { mutate, error, isPending } = useNewDoor();
  return (
    <Room title={said.newTitle} back={() => router.navigate('/house')}>
      <Words tone="slate">{said.newMore}</Words>
      <Field
        label={said.name}
        more={said.nameMore}
        value={name}
        maxLength={80}
        problem={problemOf(error, 'name')}
        onChangeText={setName}
      />
      <Select
        label={said.language}
        options={shippedCodes.map((code) => [code, languageName(code)])}
        value={language}
        onChange={setLanguage}
      />
      <Problem text={problemElsewhere(error, ['name'])} />
      <Button
        look="main"
        label={said.make}
        disabled={isPending}
        onPress={() =>
          mutate({ name, language }, { onSuccess: ({ id }) => router.replace(`/house/door/${id}`) })
        }
      />
    </Room>
  );
};
