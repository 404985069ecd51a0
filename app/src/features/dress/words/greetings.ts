import { many } from '../../../kit/many';

/** What is said before anybody writes, in the dressing room. */
export const greetings = {
  more: 'A few words beside the plate before anybody writes. Once a visit, only while you are in unless you allow more; whoever has written before is not greeted.',
  none: 'Nobody is greeted yet. Say hello as people say it where you are, and what you can help with.',
  add: 'Add a greeting',
  open: (text: string) => `Change “${text}”`,
  nameless: 'Without words yet',
  isOn: 'It is said',
  off: 'Off',
  notRight: 'not right yet',
  seen: (seen: number, answered: number) => {
    if (seen === 0 && answered === 0) return 'Not seen yet';
    const times = seen === 1 ? 'Seen once' : `Seen ${seen} times`;
    return answered === 0 ? `${times}, not answered yet` : `${times}, answered ${answered}`;
  },
  countsMore:
    'Answered: whoever saw it wrote. Pages whose policy forbids it (connect-src) do not say that it was seen.',
  back: 'All greetings',
  text: 'What is said',
  textMore: 'With the greeting that is usual where you are: “Morning. Which fern are you after?”',
  who: 'In whose name',
  business: 'The business',
  left: 'Somebody who has left',
  language: 'Language',
  languageMore: 'It is said to those to whom the door speaks this language.',
  pages: 'On these pages',
  pagesMore: 'One a line, as /shop or /shop/* (the star stands for anything). None: on every page.',
  after: 'After seconds on the page',
  least: 'From which visit on',
  leastMore: '1 is the first. Half an hour without them ends a visit.',
  most: 'Up to which visit',
  mostMore: 'Empty: to all that come after.',
  visitsProblem: (most: number) =>
    `Whole numbers from 1 to ${most}, the second not below the first.`,
  cameFrom: 'Who came from these websites',
  cameFromMore: 'One a line, as maps.example. None: wherever they come from.',
  whileNotLit: 'Also while nobody is in',
  whileNotLitMore: 'What they write then is a note.',
  tryOn: 'Try this one on your website',
  tryOnMore:
    'It opens there for you alone, on or off: after its seconds, on its pages, whatever visit it is and whatever the light shows. It is not counted.',
  drop: 'Take this greeting away',
  dropped: (text: string) => `“${text}” is taken away`,
  rules: {
    all: 'every page',
    pages: (count: number) => many(count, 'page', 'pages'),
    after: (seconds: number) => (seconds === 0 ? 'at once' : `after ${seconds} s`),
    visits: (least: number, most: number | null) =>
      most === null
        ? `from visit ${least} on`
        : least === most
          ? `on visit ${least}`
          : `on visits ${least} to ${most}`,
    cameFrom: (hosts: string) => `coming from ${hosts}`,
    whileNotLit: 'also while nobody is in',
  },
};
