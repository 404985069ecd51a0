import { type ComponentType, lazy, Suspense } from 'react';

/** The ways in, which whoever is in already need not load: they come together, with the first of them. */
const load = () => import('./screens');
type Screens = Awaited<ReturnType<typeof load>>;

const late = (which: keyof Screens): ComponentType => {
  const Screen = lazy(async () => ({ default: (await load())[which] as ComponentType }));
  return () => (
    <Suspense fallback={null}>
      <Screen />
    </Suspense>
  );
};

export const SignIn = late('SignIn');
export const SetUp = late('SetUp');
export const JoinByLink = late('JoinByLink');
export const NewPasswordByLink = late('NewPasswordByLink');
export const PairByCode = late('PairByCode');
