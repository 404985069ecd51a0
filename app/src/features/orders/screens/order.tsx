import type { OrderTyped } from '@porch/contract/orders';
import { router } from 'expo-router';
import { ScrollView, StyleSheet } from 'react-native';
import { Field } from '../../../kit/fields/field';
import { Problem, Row } from '../../../kit/fields/form';
import { MomentField } from '../../../kit/fields/moment-field';
import { SaveRow } from '../../../kit/fields/save-row';
import { Button } from '../../../kit/press';
import { Failed, RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { kitWords } from '../../../kit/words';
import { offerUndo } from '../../../shell/frame/undo';
import { useTyped } from '../../../shell/offline/typed';
import { problemElsewhere, problemOf } from '../../../shell/session/problems';
import { NEW, useDropOrder, useOrder, usePutOrder } from '../data/orders';
import { words } from '../words';

const said = () => words().one;

const fields = ['number', 'email', 'phone', 'state', 'expectedOn', 'link'] as const;

const nothing: OrderTyped = {
  number: '',
  email: '',
  phone: '',
  state: '',
  expectedOn: '',
  link: '',
};

const Editor = ({ place, known }: { place: string; known: OrderTyped | null }) => {
  const { typed, set, drop: forget, isChanged } = useTyped(`order ${place}`, known ?? nothing);
  const put = usePutOrder();
  const drop = useDropOrder();
  const leave = (): void => router.navigate('/house/orders');
  const change = (part: Partial<OrderTyped>): void => {
    set(part);
    put.reset();
  };
  const save = (): void =>
    put.mutate(
      { before: known, order: typed },
      {
        onSuccess: () => {
          forget();
          leave();
        },
      },
    );
  const remove = (gone: OrderTyped): void =>
    drop.mutate(gone.number, {
      onSuccess: () => {
        offerUndo({
          said: said().dropped(gone.number),
          deedIds: [''],
          undo: () => put.mutate({ before: null, order: gone }),
        });
        forget();
        leave();
      },
    });
  const problem = (field: string): string => problemOf(put.error, field);
  return (
    <ScrollView contentContainerStyle={styles.page} keyboardShouldPersistTaps="handled">
      <Row>
        <Button look="bare" label={`‹ ${words().title}`} onPress={leave} />
      </Row>
      <Text kind="large" role="heading" aria-level={1}>
        {known ? said().title(known.number) : said().titleNew}
      </Text>
      {place !== NEW && !known ? <Text tone="brick">{said().gone}</Text> : null}
      <Field
        label={said().number}
        value={typed.number}
        maxLength={40}
        autoCapitalize="characters"
        onChangeText={(number) => change({ number })}
        problem={problem('number')}
      />
      <Field
        label={said().state}
        more={said().stateMore}
        value={typed.state}
        maxLength={80}
        onChangeText={(state) => change({ state })}
        problem={problem('state')}
      />
      <Field
        label={said().email}
        more={said().contactMore}
        value={typed.email}
        maxLength={254}
        inputMode="email"
        autoCapitalize="none"
        onChangeText={(email) => change({ email })}
        problem={problem('email')}
      />
      <Field
        label={said().phone}
        value={typed.phone}
        maxLength={40}
        inputMode="tel"
        onChangeText={(phone) => change({ phone })}
        problem={problem('phone')}
      />
      <MomentField
        kind="date"
        label={said().expectedOn}
        value={typed.expectedOn}
        problem={problem('expectedOn')}
        onChange={(expectedOn) => change({ expectedOn })}
      />
      <Field
        label={said().link}
        value={typed.link}
        placeholder="https://"
        maxLength={500}
        inputMode="url"
        autoCapitalize="none"
        onChangeText={(link) => change({ link })}
        problem={problem('link')}
      />
      <Problem text={problemElsewhere(put.error, [...fields])} />
      <Problem text={problemOf(drop.error)} />
      <SaveRow
        save={{ label: kitWords().save, isBusy: put.isPending, do: save }}
        forget={
          isChanged
            ? {
                label: said().forget,
                kept: said().kept,
                do: () => {
                  forget();
                  put.reset();
                },
              }
            : null
        }
        drop={
          known ? { label: said().drop, isBusy: drop.isPending, do: () => remove(known) } : null
        }
      />
    </ScrollView>
  );
};

/** An order by hand: a new one, or one to be corrected. `place`: its number, or `NEW`. */
export const OrderEditor = ({ place }: { place: string }) => {
  const { data, isError, refetch } = useOrder(place === NEW ? null : place);
  if (isError && data === undefined) return <Failed retry={() => void refetch()} />;
  if (place !== NEW && data === undefined) return <RowsComing />;
  return <Editor key={place} place={place} known={data ?? null} />;
};

const styles = StyleSheet.create({
  page: { padding: 16, gap: 20, maxWidth: 720, width: '100%', alignSelf: 'center' },
});
