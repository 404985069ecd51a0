import { type Greeting, newGreeting } from '@porch/core/greetings';

const greeting = (id: string, change: Partial<Greeting> & { text: string }): Greeting => ({
  ...newGreeting(id, 'en'),
  ...change,
});

/** A greeting of the demo, by whose place in the accounts it is said, and what came of it so far. */
interface DemoGreeting {
  greeting: Greeting;
  by: number | null;
  seen: number;
  answered: number;
}

/** What Quillfern says before anybody writes. */
export const demoGreetings: readonly DemoGreeting[] = [
  {
    greeting: greeting('greeting-monstera', {
      text: 'Morning. Shall I measure one of these for your corner?',
      pages: ['/monstera-deliciosa'],
      afterSeconds: 12,
    }),
    by: 0,
    seen: 318,
    answered: 41,
  },
  {
    greeting: greeting('greeting-delivery', {
      text: 'Hello. Tell me your postcode, and I say which day the van comes by.',
      pages: ['/delivery'],
      visits: { least: 2, most: null },
    }),
    by: null,
    seen: 96,
    answered: 22,
  },
  {
    greeting: greeting('greeting-map-01', {
      isOn: false,
      text: 'Found us on the map? The gate is on the left, behind the chapel.',
      cameFrom: ['maps.example'],
      afterSeconds: 5,
      whileNotLit: true,
    }),
    by: null,
    seen: 57,
    answered: 3,
  },
];
