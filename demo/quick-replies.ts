import { facts } from '@porch/street/site/facts';

/** What Maren has written to be given again. */
export const quickReplies: readonly {
  title: string;
  code: string;
  text: string;
  group: string;
  isOwn?: boolean;
  /** What of the shelf goes with it. */
  shelf?: readonly string[];
  usedCount: number;
}[] = [
  {
    title: 'When we are open',
    code: 'hours',
    text: `Hi {first name|there}, we are open ${facts.shopInWords}. The next time is {next opening}.`,
    group: 'Shop',
    usedCount: 41,
  },
  {
    title: 'Where to park',
    code: 'parking',
    text: `There are ${facts.parkingSpaces} spaces in our own yard, behind the glasshouse: turn in at the blue gate on Mill Lane. They are free while you are with us.`,
    group: 'Shop',
    shelf: ['glasshouse'],
    usedCount: 17,
  },
  {
    title: 'How far we deliver',
    code: 'delivery',
    text: `We deliver within ${facts.delivery.miles} miles of Larkhope, on ${facts.delivery.days}, for £${facts.delivery.cost}; from £${facts.delivery.freeFrom} it is free. Which postcode would it be for, {first name|please}?`,
    group: 'Delivery',
    usedCount: 33,
  },
  {
    title: 'An order is on its way',
    code: 'onway',
    text: 'Good news, {first name|and thank you for waiting}: order {order number?} left us this morning and should be with you by {day?|tomorrow}. {my name}',
    group: 'Delivery',
    usedCount: 22,
  },
  {
    title: 'Yellow leaves',
    code: 'yellow',
    text: 'Yellow leaves are nearly always too much water. Let the top three centimetres of soil dry out before you water again, and lift the pot: if it is heavy, wait. If it is no better in two weeks, send us a picture.',
    group: 'Care',
    usedCount: 28,
  },
  {
    title: 'Fungus gnats',
    code: 'gnats',
    text: 'Those are fungus gnats: a nuisance, and harmless to people. Let the soil dry, put a yellow sticky card beside the pot, and water from below for a month.',
    group: 'Care',
    usedCount: 12,
  },
  {
    title: 'Bring it to the bench',
    code: 'bench',
    text: `Bring it along, pot and all: Tobias is at the repotting bench ${facts.benchInWords}. It takes a quarter of an hour and costs £${facts.repotting.small} up to 40 cm, with the soil.`,
    group: 'Care',
    usedCount: 19,
  },
  {
    title: 'We have it in',
    code: 'have',
    text: 'Yes, we have {plant?} in at the moment, about {height?} tall, for {price?}. Shall I put one by for you until {day?|Saturday}?',
    group: 'Shop',
    usedCount: 26,
  },
  {
    title: 'Thank you, from Maren',
    code: 'thanks',
    text: 'Thank you, {first name|and see you soon}. {my name}',
    group: '',
    isOwn: true,
    usedCount: 8,
  },
];

/** Words that are right at Quillfern, whatever a dictionary says. */
export const ownWords = [
  'Quillfern',
  'Larkhope',
  'Maren',
  'Tobias',
  'calathea',
  'monstera',
  'pilea',
  'repotting',
];
