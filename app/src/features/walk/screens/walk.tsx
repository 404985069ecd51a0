import type { Door } from '@porch/contract/doors';
import type { Business, House, WalkStep } from '@porch/contract/house';
import { router } from 'expo-router';
import { useState } from 'react';
import { PlainFrame } from '../../../kit/drawn/plain-frame';
import { Field } from '../../../kit/fields/field';
import { Done, Problem, Row } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { HousePage } from '../../../shell/frame/house-page';
import { MINUTE_MS, useNow } from '../../../shell/live/use-now';
import { useHouse, useZone } from '../../../shell/session/house';
import { problemOf } from '../../../shell/session/problems';
import { useChangeDoor } from '../../doors/data/doors';
import { sightingInWords } from '../../doors/parts/in-words';
import { PutUp } from '../../doors/parts/put-up';
import { useSetHours } from '../../hours/data/hours';
import { type UsualWeek, usualWeeks } from '../../hours/data/weeks';
import { useChangeBusiness } from '../../house/data/business';
import { BusinessForm } from '../../house/parts/business-form';
import { useStretch } from '../../line/data/line';
import { words } from '../words';

const usualWeekNames = ['workdays', 'daily', 'always'] as const satisfies readonly UsualWeek[];

/** The steps before "done", in their order. */
const steps = ['business', 'hours', 'website', 'snippet', 'test'] as const;
export type Step = (typeof steps)[number];

export const isStep = (text: unknown): text is Step => steps.some((step) => step === text);

interface StepProps {
  house: House;
  business: Business;
  door: Door;
  go: (to: WalkStep) => void;
}

const BusinessStep = ({ business, go }: StepProps) => (
  <BusinessForm
    business={business}
    isOwner
    submit={words().next}
    also={{ walkStep: 'hours' }}
    onSaved={() => go('hours')}
  />
);

/** When somebody answers: until that is said, visitors read that nobody is in. One tap for the weeks that many have. */
const HoursStep = ({ house, go }: StepProps) => {
  const { mutate, error, isPending } = useSetHours();
  const isSet = house.checklist?.hours ?? false;
  const set = (week: UsualWeek): void =>
    mutate(usualWeeks[week], { onSuccess: () => go('website') });
  return (
    <>
      {isSet ? <Done text={words().hours.done} /> : null}
      {usualWeekNames.map((week) => (
        <Button
          key={week}
          label={words().hours.weeks[week]}
          disabled={isPending}
          onPress={() => set(week)}
        />
      ))}
      <Problem text={problemOf(error)} />
      <Button
        look={isSet ? 'main' : 'bare'}
        label={isSet ? words().next : words().hours.skip}
        onPress={() => go('website')}
      />
    </>
  );
};

const WebsiteStep = ({ door, go }: StepProps) => {
  const [site, setSite] = useState(door.sites[0] ?? '');
  const { mutate, error, isPending, reset } = useChangeDoor(door.id);
  const next = (): void => {
    const rest = door.sites.slice(1);
    mutate({ sites: [site, ...rest] }, { onSuccess: () => go('snippet') });
  };
  return (
    <>
      <Field
        label={words().website.field}
        value={site}
        placeholder={words().website.placeholder}
        inputMode="url"
        autoComplete="url"
        autoCapitalize="none"
        maxLength={400}
        problem={problemOf(error)}
        onChangeText={(text) => {
          setSite(text);
          reset();
        }}
        onSubmitEditing={next}
      />
      <Button
        look="main"
        label={words().next}
        disabled={isPending || !site.trim()}
        onPress={next}
      />
      <Button look="bare" label={words().website.none} onPress={() => go('snippet')} />
    </>
  );
};

const SnippetStep = ({ house, door, go }: StepProps) => {
  const now = useNow(MINUTE_MS);
  const zone = useZone();
  const seen = house.checklist?.sightings.find(
    ({ doorId, isListed }) => doorId === door.id && isListed,
  );
  return (
    <>
      <PutUp door={door} />
      {seen ? (
        <Done text={sightingInWords(seen, now, zone)} />
      ) : (
        <Text kind="second" tone="slate" role="status">
          {words().snippet.waiting}
        </Text>
      )}
      <Button
        look="main"
        label={seen ? words().next : words().snippet.skip}
        onPress={() => go('test')}
      />
    </>
  );
};

const TestStep = ({ house, door, go }: StepProps) => {
  const isAnswered = house.checklist?.answered ?? false;
  const groups = [
    useStretch({ view: 'all', group: 'waiting' }, true),
    useStretch({ view: 'all', group: 'note' }, true),
    useStretch({ view: 'all', group: 'answered' }, true),
  ];
  const rows = groups.flatMap(({ data }) => data?.rows ?? []);
  // What was just written is what was written last.
  const newest = [...rows].sort((a, b) => b.state.lastAt - a.state.lastAt)[0];
  return (
    <>
      <PlainFrame title={words().test.frame} source={`/talk/${door.publicId}`} height={430} />
      {isAnswered ? (
        <Done text={words().test.done} />
      ) : newest ? (
        <Done text={words().test.arrived} />
      ) : null}
      <Button
        look={isAnswered ? 'edge' : 'main'}
        label={words().test.answer}
        onPress={() => router.navigate(newest ? `/line/${newest.id}` : '/line')}
      />
      <Button
        look={isAnswered ? 'main' : 'bare'}
        label={words().test.finish}
        onPress={() => go('done')}
      />
    </>
  );
};

const views: Record<Step, (props: StepProps) => React.ReactNode> = {
  business: BusinessStep,
  hours: HoursStep,
  website: WebsiteStep,
  snippet: SnippetStep,
  test: TestStep,
};

/** From nothing to a tested door, step by step; each can be left, and is where it was on coming back. */
export const Walk = ({ asked }: { asked: Step | null }) => {
  const { data: house } = useHouse();
  const change = useChangeBusiness();
  const [step, setStep] = useState<Step | null>(asked);
  if (!house?.me || !house.business) return <RowsComing />;
  const { business } = house;
  const door = house.doors.find(({ isCarried }) => !isCarried);
  const here = step ?? (isStep(business.walkStep) ? business.walkStep : 'test');
  if (house.me.role !== 'owner' || !door) return <Problem text={words().onlyOwner} />;
  const go = (to: WalkStep): void => {
    if (business.walkStep !== 'done') change.mutate({ walkStep: to });
    if (to === 'done') router.replace('/house');
    else setStep(to);
  };
  const View = views[here];
  const at = steps.indexOf(here);
  const before = steps[at - 1];
  return (
    <HousePage title={words()[here].title}>
      <Text kind="small" tone="slate">
        {words().step(at + 1, steps.length)}
      </Text>
      <Text tone="slate">{words()[here].more}</Text>
      <View house={house} business={business} door={door} go={go} />
      <Problem text={problemOf(change.error)} />
      <Row>
        {before ? (
          <Button look="bare" label={words().back} onPress={() => setStep(before)} />
        ) : null}
        <Button look="bare" label={words().later} onPress={() => router.navigate('/line')} />
      </Row>
    </HousePage>
  );
};
