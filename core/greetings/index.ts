/** What a door says to somebody before they write. */
export {
  GREETING_LONGEST,
  GREETING_PLACES_MOST,
  GREETING_VISITS_MOST,
  GREETING_WAIT_MOST_SECONDS,
  GREETINGS_MOST,
  type Greeting,
  type GreetingProblem,
  nextGreeting,
  type Passing,
  problemsInGreetings,
} from './greetings';
