import type { DeadJob } from '@porch/contract/jobs';
import { StyleSheet, View } from 'react-native';
import { Problem, Row, Section } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Text } from '../../../kit/text';
import { momentInWords } from '../../../kit/times';
import { MINUTE_MS, useNow } from '../../../shell/live/use-now';
import { useZone } from '../../../shell/session/house';
import { problemOf } from '../../../shell/session/problems';
import { whyInWords } from '../../../shell/words/why';
import { useDeadJob, useDeadJobs } from '../data/dead-jobs';
import { words } from '../words';

const said = () => words().deadJobs;

/** What had to happen outside, or later, and was given up: to be tried again, or left. */
export const DeadJobs = ({ count }: { count: number }) => {
  const zone = useZone();
  const now = useNow(MINUTE_MS);
  const dead = useDeadJobs(count);
  const act = useDeadJob();
  const jobs: readonly DeadJob[] = dead.data?.jobs ?? [];
  if (count === 0) return null;
  return (
    <Section title={said().title(count)}>
      <Text>{said().more}</Text>
      <View role="list" style={styles.list}>
        {jobs.map(({ id, kind, why, tries, diedAt }) => {
          const what = said().kinds[kind] ?? said().other(kind);
          return (
            <View key={id} role="listitem" style={styles.job}>
              <Text kind="name">{what}</Text>
              <Text kind="second" tone="slate">
                {said().facts(whyInWords(why), tries, momentInWords(diedAt, now, zone))}
              </Text>
              <Row>
                <Button
                  label={said().again}
                  aria-label={`${said().again}: ${what}`}
                  onPress={() => act.mutate({ id, isAgain: true })}
                />
                <Button
                  look="bare"
                  label={said().leave}
                  aria-label={`${said().leave}: ${what}`}
                  onPress={() => act.mutate({ id, isAgain: false })}
                />
              </Row>
            </View>
          );
        })}
      </View>
      {jobs.length > 0 && jobs.length < count ? (
        <Text kind="second" tone="slate">
          {said().newest(jobs.length)}
        </Text>
      ) : null}
      <Problem text={problemOf(act.error ?? dead.error)} />
    </Section>
  );
};

const styles = StyleSheet.create({ list: { gap: 20 }, job: { gap: 6 } });
