import type { CardRowRefusal } from '@porch/core/cards';
import type { Asks } from '@porch/core/conversation';
import { many } from '../../../kit/many';

/** What is asked often, in the dressing room. */
export const asked = {
  more: 'Questions as buttons, with your answers. A tap puts both into the conversation; nothing is ever guessed.',
  none: 'Nothing is asked here yet. Begin with what people ask every day: hours, delivery, prices.',
  add: 'Add a question',
  first: 'Shown first',
  others: 'Found by search, or after another question',
  order: 'Drag by the handle, or use the arrows; with a keyboard press Space on the handle.',
  handle: (question: string) => `Move “${question}”`,
  up: (question: string) => `“${question}” further up`,
  down: (question: string) => `“${question}” further down`,
  open: (question: string) => `Change “${question}”`,
  nameless: 'Without a question yet',
  searched: 'There are more than ten: visitors can search them.',
  shownFirst: (count: number, most: number) => `${count} of at most ${most} are shown first`,
  after: (question: string) => `after “${question}”`,
  goesBack: 'leads back from here',
  notRight: 'not right yet',
  tooManyFirst: (most: number) =>
    `More than ${most} of one language are shown first. Take some of them out of “Shown first while”.`,
  tapped: (tapped: number, enough: number) => {
    if (tapped === 0) return 'Not tapped yet';
    if (tapped > 1 && tapped === enough) return `Tapped ${tapped} times, enough each time`;
    if (tapped > 1) return `Tapped ${tapped} times, ${enough} of them enough`;
    return enough > 0 ? 'Tapped once, and that was enough' : 'Tapped once, and not enough';
  },
  enoughMore: 'Enough: whoever tapped it wrote nothing within an hour.',
  back: 'All questions',
  question: 'Question',
  questionMore: 'As it stands on the button.',
  answer: 'Answer',
  answerMore:
    'For a guide: # begins a heading, 1. a step, - an item; [picture 1] on its own line shows that picture there.',
  link: 'A page to go on with',
  linkMore: 'Shown as “Read on” below the answer. May stay empty.',
  pictureName: (place: number) => `Picture ${place}`,
  picturesMost: (most: number) => `At most ${most} pictures go with a question.`,
  language: 'Language',
  states: 'Shown first while',
  statesMore: 'In none of them it is found by search, or after another question.',
  leads: 'What follows',
  leadsTo: {
    end: 'Nothing more',
    cards: 'Further questions',
    ask: 'Ask for a detail',
    pass: 'Pass it to somebody',
  },
  person: '“A person, please” is always offered as well.',
  further: 'Further questions',
  addFurther: 'Add one that there is',
  choose: 'Choose one',
  newFurther: 'Add a new one after this',
  dropFurther: (question: string) => `Do not go on to “${question}”`,
  asks: 'What is asked for',
  fields: {
    name: 'Name',
    email: 'Email',
    phone: 'Phone number',
    own: 'Something else',
  } satisfies Record<Asks['field'], string>,
  label: 'In your words',
  labelMore: 'Postcode, order number, size of the pot …',
  next: 'And then',
  nothing: 'Nothing more',
  whom: 'To whom',
  whomMore: 'They are rung first, and the visitor waits for an answer.',
  drop: 'Delete this question',
  dropped: (question: string) => `“${question}” deleted.`,
  left: 'Somebody who has left',
  leftMore: 'They have left. Visitors wait for whoever comes first; choose somebody else.',
  proposals: {
    title: 'Questions that keep coming',
    more: 'People ask these, and there is no card for them yet. Nothing is added by itself.',
    askedBy: (count: number) => `Asked in ${many(count, 'conversation', 'conversations')}`,
    make: 'Make it a question here',
  },
  tables: {
    title: 'In and out',
    intro:
      'A table with the columns question, answer, link, language, first, leads to, asks for, passes to; only question has to be there.',
    done: (added: number, changed: number, same: number) =>
      `${added} added, ${changed} changed, ${same} as they were. Visitors see them once you publish.`,
    row: (row: number, question: string, why: string) =>
      `Row ${row}${question ? ` (${question})` : ''}: ${why}`,
    more: (count: number) => `and ${count} more`,
    whys: {
      'question-empty': 'it has no question, and was not taken.',
      'question-too-long': 'its question is longer than 80 characters; it was not taken.',
      'answer-too-long': 'its answer is longer than 4,000 characters; it was not taken.',
      'too-many': 'there are 60 questions already; it was not taken.',
      'leads-unknown': 'it leads to a question that is not there; the rest of it was taken.',
      'person-unknown': 'nobody of the team is called so; the rest of it was taken.',
    } satisfies Record<CardRowRefusal, string>,
  },
  moving: {
    instructions:
      'To move a question, press Space on its handle, then the arrow keys; Space again puts it there, Escape leaves it.',
    picked: (question: string) => `“${question}” is picked up.`,
    over: (question: string, place: number) => `“${question}” is at place ${place}.`,
    put: (question: string, place: number) => `“${question}” was put at place ${place}.`,
    left: (question: string) => `“${question}” is where it was.`,
  },
};
