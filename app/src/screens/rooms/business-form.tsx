import type { Business, BusinessChange } from '@porch/contract/team';
import { useState } from 'react';
import { useChangeBusiness, useCountries } from '../../data/house';
import { useBusinessPicture } from '../../data/pictures';
import { Choice } from '../../parts/choice';
import { Field } from '../../parts/field';
import { Done, Problem, problemElsewhere, problemOf } from '../../parts/form';
import { PictureField } from '../../parts/picture-field';
import { Button } from '../../parts/press';
import { Select } from '../../parts/select';
import { words } from '../../wording';

const said = words.business;
const fields = ['name', 'zone', 'country', 'address'] as const;

const countryName = (code: string): string =>
  new Intl.DisplayNames(['en'], { type: 'region' }).of(code) ?? code;

/** All countries by name, for a list. */
export const countryOptions = (codes: readonly string[]): [string, string][] =>
  codes
    .map((code): [string, string] => [code, countryName(code)])
    .sort(([, one], [, other]) => one.localeCompare(other));

/** The business: name, picture, place, and where people may write instead. */
export const BusinessForm = (props: {
  business: Business;
  isOwner: boolean;
  submit: string;
  /** What is saved with it, and what happens then. */
  also?: BusinessChange;
  onSaved?: () => void;
}) => {
  const { business, isOwner } = props;
  const [typed, setTyped] = useState({
    name: business.name,
    zone: business.zone,
    country: business.country,
    address: business.address,
  });
  const save = useChangeBusiness();
  const picture = useBusinessPicture(business.pictureShape);
  const { data } = useCountries(typed.zone);
  const set = (change: Partial<typeof typed>): void => {
    setTyped({ ...typed, ...change });
    save.reset();
  };
  return (
    <>
      <Field
        label={said.name}
        value={typed.name}
        maxLength={80}
        editable={isOwner}
        problem={problemOf(save.error, 'name')}
        onChangeText={(name) => set({ name })}
      />
      {isOwner ? (
        <>
          <PictureField
            label={said.picture}
            name={business.name}
            pictureId={business.pictureId}
            shape={business.pictureShape}
            problem={problemOf(picture.error)}
            set={(cut) => picture.mutate(cut)}
          />
          <Choice
            label={said.shape}
            options={[
              ['round', said.round],
              ['square', said.square],
            ]}
            value={business.pictureShape}
            onChange={(pictureShape) => save.mutate({ pictureShape })}
          />
        </>
      ) : null}
      <Field
        label={said.zone}
        value={typed.zone}
        maxLength={64}
        autoCapitalize="none"
        editable={isOwner}
        problem={problemOf(save.error, 'zone')}
        onChangeText={(zone) => set({ zone })}
      />
      <Select
        label={said.country}
        more={said.countryMore}
        options={[['', said.countryNone], ...countryOptions(data?.countries ?? [])]}
        value={typed.country}
        isDisabled={!isOwner}
        onChange={(country) => set({ country })}
      />
      <Field
        label={said.address}
        more={said.addressMore}
        value={typed.address}
        maxLength={254}
        autoComplete="email"
        inputMode="email"
        autoCapitalize="none"
        editable={isOwner}
        problem={problemOf(save.error, 'address')}
        onChangeText={(address) => set({ address })}
      />
      <Problem text={problemElsewhere(save.error, fields)} />
      {isOwner ? (
        <Button
          look="main"
          label={props.submit}
          disabled={save.isPending}
          onPress={() =>
            save.mutate(
              { ...typed, ...props.also },
              {
                onSuccess: ({ address }) => {
                  setTyped({ ...typed, address });
                  props.onSaved?.();
                },
              },
            )
          }
        />
      ) : (
        <Problem text={said.onlyOwner} />
      )}
      {save.isSuccess ? <Done text={said.saved} /> : null}
    </>
  );
};
