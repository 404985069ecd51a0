/** What a door says to somebody before they write. */
export {
  FIRST_HELLO,
  GREETING_LONGEST,
  GREETING_PLACES_MOST,
  GREETING_VISITS_MOST,
  GREETING_WAIT_MOST_SECONDS,
  GREETINGS_MOST,
  type Greeting,
  type GreetingProblem,
  greetingsIn,
  newGreeting,
  problemsInGreetings,
  tidyGreetings,
  triedGreeting,
} from './greetings';
export { type GreetingRules, nextGreeting, type Passing, type SaidGreeting } from './next';
