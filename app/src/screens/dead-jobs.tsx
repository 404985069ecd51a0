import type { DeadJob } from '@porch/contract/team';
import { StyleSheet, View } from 'react-native';
import { useDeadJob, useDeadJobs } from '../data/dead-jobs';
import { useZone } from '../data/house';
import { Problem, problemOf, Row, Section } from '../parts/form';
import { Button } from '../parts/press';
import { useNow } from '../parts/use-now';
import { Words } from '../parts/words';
import { whyInWords, words } from '../wording';
import { momentInWords } from '../wording/times';

const said = words.deadJobs;

/** What had to happen outside, or later, and was given up: to be tried again, or left. */
export const DeadJobs = ({ count }: { count: number }) => {
  const zone = useZone();
  const now = useNow(60_000);
  const dead = useDeadJobs(count);
  const act = useDeadJob();
  const jobs: readonly DeadJob[] = dead.data?.jobs ?? [];
  if (count === 0) return null;
  return (
    <Section title={said.title(count)}>
      <Words>{said.more}</Words>
      <View role="list" style={styles.list}>
        {jobs.map(({ id, kind, why, tries, diedAt }) => {
          const what = said.kinds[kind] ?? said.other(kind);
          return (
            <View key={id} role="listitem" style={styles.job}>
              <Words kind="name">{what}</Words>
              <Words kind="second" tone="slate">
                {said.facts(whyInWords(why), tries, momentInWords(diedAt, now, zone))}
              </Words>
              <Row>
                <Button
                  label={said.again}
                  aria-label={`${said.again}: ${what}`}
                  onPress={() => act.mutate({ id, isAgain: true })}
                />
                <Button
                  look="bare"
                  label={said.leave}
                  aria-label={`${said.leave}: ${what}`}
                  onPress={() => act.mutate({ id, isAgain: false })}
                />
              </Row>
            </View>
          );
        })}
      </View>
      {jobs.length > 0 && jobs.length < count ? (
        <Words kind="second" tone="slate">
          {said.newest(jobs.length)}
        </Words>
      ) : null}
      <Problem text={problemOf(act.error ?? dead.error)} />
    </Section>
  );
};

const styles = StyleSheet.create({ list: { gap: 20 }, job: { gap: 6 } });
