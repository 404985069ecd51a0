import type { Business, BusinessChange } from '@porch/contract/house';
import { Choice } from '../../../kit/fields/choice';
import { Field } from '../../../kit/fields/field';
import { Done, Problem } from '../../../kit/fields/form';
import { Select } from '../../../kit/fields/select';
import { countryOptions } from '../../../kit/names';
import { Button } from '../../../kit/press';
import { kitWords } from '../../../kit/words';
import { useTyped } from '../../../shell/offline/typed';
import { PictureField } from '../../../shell/pictures/picture-field';
import { useCountries } from '../../../shell/session/countries';
import { problemElsewhere, problemOf } from '../../../shell/session/problems';
import { useBusinessPicture, useChangeBusiness } from '../data/business';
import { words } from '../words';

const said = () => words().business;
const fields = ['name', 'zone', 'country', 'address'] as const;

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
  const { name, zone, country, address } = business;
  const { typed, set: type, drop } = useTyped('business', { name, zone, country, address });
  const save = useChangeBusiness();
  const picture = useBusinessPicture(business.pictureShape);
  const { data } = useCountries(typed.zone);
  const set = (change: Partial<typeof typed>): void => {
    type(change);
    save.reset();
  };
  return (
    <>
      <Field
        label={said().name}
        value={typed.name}
        maxLength={80}
        editable={isOwner}
        problem={problemOf(save.error, 'name')}
        onChangeText={(name) => set({ name })}
      />
      {isOwner ? (
        <>
          <PictureField
            label={said().picture}
            name={business.name}
            pictureId={business.pictureId}
            shape={business.pictureShape}
            problem={problemOf(picture.error)}
            set={(cut) => picture.mutate(cut)}
          />
          <Choice
            label={said().shape}
            options={[
              ['round', said().round],
              ['square', said().square],
            ]}
            value={business.pictureShape}
            onChange={(pictureShape) => save.mutate({ pictureShape })}
          />
        </>
      ) : null}
      <Field
        label={said().zone}
        value={typed.zone}
        maxLength={64}
        autoCapitalize="none"
        editable={isOwner}
        problem={problemOf(save.error, 'zone')}
        onChangeText={(zone) => set({ zone })}
      />
      <Select
        label={said().country}
        more={said().countryMore}
        options={[['', said().countryNone], ...countryOptions(data?.countries ?? [])]}
        value={typed.country}
        isDisabled={!isOwner}
        onChange={(country) => set({ country })}
      />
      <Field
        label={said().address}
        more={said().addressMore}
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
                onSuccess: () => {
                  drop();
                  props.onSaved?.();
                },
              },
            )
          }
        />
      ) : (
        <Problem text={said().onlyOwner} />
      )}
      {save.isSuccess ? <Done text={kitWords().saved} /> : null}
    </>
  );
};
