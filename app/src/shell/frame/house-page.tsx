import { router } from 'expo-router';
import type { ReactNode } from 'react';
import { ScrollView, StyleSheet } from 'react-native';
import { Row } from '../../kit/fields/form';
import { Button } from '../../kit/press';
import { Text } from '../../kit/text';
import { shellWords } from '../words';

/** The title of a page, and for one that lies behind the House screen the way back. */
export const HouseTop = (props: { title: string; isBehind?: boolean }) => (
  <>
    {props.isBehind ? (
      <Row>
        <Button
          look="bare"
          label={`‹ ${shellWords().places.house}`}
          onPress={() => router.navigate('/house')}
        />
      </Row>
    ) : null}
    <Text kind="large" role="heading" aria-level={1}>
      {props.title}
    </Text>
  </>
);

/** A page in the manner of the House screen: its title, and for one that lies behind it the way back. */
export const HousePage = (props: { title: string; isBehind?: boolean; children: ReactNode }) => (
  <ScrollView contentContainerStyle={styles.page}>
    <HouseTop title={props.title} isBehind={props.isBehind} />
    {props.children}
  </ScrollView>
);

const styles = StyleSheet.create({
  page: { padding: 16, gap: 20, maxWidth: 720, width: '100%', alignSelf: 'center' },
});
