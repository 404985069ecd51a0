/** What a business has stored: made up, and written before any of the messages that it is tried with. */
export interface StoredAnswer {
  /** Which question it answers. */
  answers: string;
  /** The title of a quick reply, or the question of a card or of somebody who asked before. */
  title: string;
  text: string;
}

/** Quick replies and cards. */
export const stored: readonly StoredAnswer[] = [
  {
    answers: 'hours',
    title: 'When we are open',
    text: 'We are open Tuesday to Saturday from nine to half past five, and on Sundays from ten to four. On Mondays we are closed.',
  },
  {
    answers: 'holidays',
    title: 'Christmas and bank holidays',
    text: 'We are closed on Christmas Day, Boxing Day and New Year’s Day. On other bank holidays we open from ten to four.',
  },
  {
    answers: 'delivery-area',
    title: 'How far do you deliver?',
    text: 'We deliver within ten miles of Larkhope with our own van. Further away plants go by parcel, in a box made for them. Which postcode is it?',
  },
  {
    answers: 'delivery-cost',
    title: 'What does delivery cost?',
    text: 'Delivery by van is £4.50, and free from £60. A parcel costs £7.90 whatever is in it.',
  },
  {
    answers: 'delivery-day',
    title: 'When will it arrive?',
    text: 'The van goes on Tuesdays and Fridays; order by noon the day before. Parcels leave on Mondays and Wednesdays and take two days. We cannot give an hour.',
  },
  {
    answers: 'order-where',
    title: 'Where is my order?',
    text: 'I have looked your order up: it left us and is on its way. You should have had a mail with a tracking link when it was sent.',
  },
  {
    answers: 'order-change',
    title: 'Changing or cancelling an order',
    text: 'As long as it has not left us you can change or cancel an order. Send us the number and what you would like instead.',
  },
  {
    answers: 'damaged',
    title: 'Arrived broken',
    text: 'I am sorry that it arrived damaged. Send us a photo of the plant and the box, and we send a new one or give your money back, whichever you like.',
  },
  {
    answers: 'refund',
    title: 'Sending something back',
    text: 'Pots and tools can be returned unused within 30 days for a refund. Plants we take back within 14 days if they are healthy. Bring the receipt.',
  },
  {
    answers: 'watering',
    title: 'How often should I water?',
    text: 'Water when the top two centimetres of soil feel dry, usually once a week in summer and every two weeks in winter. Empty the saucer after half an hour.',
  },
  {
    answers: 'yellow-leaves',
    title: 'Yellow leaves',
    text: 'Leaves that turn yellow are nearly always a sign of too much water. Let the soil dry out, and move the plant somewhere brighter.',
  },
  {
    answers: 'brown-tips',
    title: 'Brown and crispy tips',
    text: 'Brown tips and crispy edges mean that the air is too dry, or the water too hard. Mist it, keep it away from the radiator, and use rain water.',
  },
  {
    answers: 'gnats',
    title: 'Small black flies',
    text: 'Those are fungus gnats, which live in wet soil. Let it dry, put a yellow sticky trap beside the pot, and water from below for a month.',
  },
  {
    answers: 'mealybugs',
    title: 'White fluffy spots',
    text: 'That is mealybug. Wipe the white fluff off with a cotton bud in alcohol, every few days for three weeks, and keep the plant away from the others.',
  },
  {
    answers: 'repotting',
    title: 'The repotting bench',
    text: 'Tobias repots your plant while you wait, every day but Monday from ten to four. It costs £6 with soil; bring a pot or choose one here.',
  },
  {
    answers: 'workshops',
    title: 'Workshops and classes',
    text: 'Our next workshop is terrariums, on the first Saturday of the month, £35 with everything you need. You can book a place here or at the till.',
  },
  {
    answers: 'parking',
    title: 'Where can I park?',
    text: 'There are six spaces in our yard behind the glasshouse; turn in at the blue gate on Mill Lane. The bus 14 stops right outside.',
  },
  {
    answers: 'access',
    title: 'Wheelchairs and prams',
    text: 'The shop and the glasshouse are level, with wide doors and a ramp at the back. There is an accessible toilet beside the till.',
  },
  {
    answers: 'dogs',
    title: 'Are dogs welcome?',
    text: 'Dogs on a lead are welcome everywhere but in the café corner. There is a water bowl at the door.',
  },
  {
    answers: 'vouchers',
    title: 'Gift vouchers',
    text: 'We sell gift cards from £10 to £200, here or by mail. They are good for two years and for everything in the shop.',
  },
  {
    answers: 'pet-safe',
    title: 'Is it poisonous for cats?',
    text: 'Lilies, philodendron, monstera and pothos are toxic to cats and dogs. Safe ones are calathea, spider plants, ferns and palms.',
  },
  {
    answers: 'payment',
    title: 'How can I pay?',
    text: 'Cash, any card and phones at the till; online by card or bank transfer. We cannot take cheques.',
  },
  {
    answers: 'trade',
    title: 'Offices, weddings and events',
    text: 'From twenty plants we make you an offer, hire included, and we look after plants in offices. Tell us the date, the place and how many.',
  },
  {
    answers: 'reserve',
    title: 'Can you keep one for me?',
    text: 'We can put a plant by for three days, without a deposit. Give us your name and a phone number.',
  },
  {
    answers: 'light',
    title: 'Plants for a dark room',
    text: 'For a north window or a dark corner take a snake plant, a ZZ plant or a cast iron plant. They manage with hardly any light.',
  },
];

/** What was asked before, as people ask, and what was answered. */
export const given: readonly StoredAnswer[] = [
  {
    answers: 'hours',
    title: 'What time do you close on a Saturday?',
    text: 'At half past five on Saturdays.',
  },
  { answers: 'hours', title: 'Are you open tomorrow morning?', text: 'We are, from nine.' },
  {
    answers: 'holidays',
    title: 'Is the shop shut over Easter weekend?',
    text: 'We open on Easter Monday from ten to four.',
  },
  {
    answers: 'delivery-area',
    title: 'I live in Fenwick Cross, can you bring plants there?',
    text: 'Yes, that is on the van’s round.',
  },
  {
    answers: 'delivery-cost',
    title: 'How much do you charge for postage?',
    text: 'A parcel is £7.90.',
  },
  {
    answers: 'delivery-day',
    title: 'If I order today, when would I get it?',
    text: 'It would come on Friday.',
  },
  {
    answers: 'order-where',
    title: 'My parcel still has not turned up, could you check?',
    text: 'It is with the carrier and should reach you tomorrow.',
  },
  {
    answers: 'order-where',
    title: 'Has my order been dispatched yet?',
    text: 'It left us this morning.',
  },
  {
    answers: 'order-change',
    title: 'I put in the wrong address, can I still correct my order?',
    text: 'I have changed the address.',
  },
  {
    answers: 'damaged',
    title: 'The pot was smashed when I opened the box',
    text: 'I am sorry. A new one goes out today.',
  },
  {
    answers: 'refund',
    title: 'I bought the wrong size, may I swap it?',
    text: 'Bring it with the receipt and we exchange it.',
  },
  {
    answers: 'watering',
    title: 'How much water does a peace lily need?',
    text: 'Once a week, and let it drain.',
  },
  {
    answers: 'yellow-leaves',
    title: 'My monstera is going yellow, what is wrong with it?',
    text: 'It is too wet. Let it dry out.',
  },
  {
    answers: 'brown-tips',
    title: 'The edges of my calathea are turning brown and curling',
    text: 'The air is too dry for it.',
  },
  {
    answers: 'gnats',
    title: 'There are tiny flies around my plants, how do I get rid of them?',
    text: 'Fungus gnats. Let the soil dry and use sticky traps.',
  },
  {
    answers: 'mealybugs',
    title: 'My succulent has white cotton stuff between the leaves',
    text: 'Mealybugs; alcohol on a cotton bud.',
  },
  {
    answers: 'repotting',
    title: 'Could you put my plant in a bigger pot?',
    text: 'Bring it to the bench, it takes a quarter of an hour.',
  },
  {
    answers: 'workshops',
    title: 'Do you run courses for beginners?',
    text: 'Yes, the first Saturday of each month.',
  },
  { answers: 'parking', title: 'Is there a car park?', text: 'Six spaces behind the glasshouse.' },
  {
    answers: 'access',
    title: 'My mother uses a wheelchair, can she get around?',
    text: 'Yes, all of it is level.',
  },
  { answers: 'dogs', title: 'Can I bring my puppy along?', text: 'Gladly, on a lead.' },
  {
    answers: 'vouchers',
    title: 'I would like to buy a gift card for a friend',
    text: 'From £10, here or by mail.',
  },
  {
    answers: 'pet-safe',
    title: 'Which plants are safe with a cat in the house?',
    text: 'Calathea, ferns, palms.',
  },
  { answers: 'payment', title: 'Do you accept credit cards?', text: 'We do, all of them.' },
  {
    answers: 'trade',
    title: 'We need fifty small plants for our wedding tables',
    text: 'We make you an offer: which date is it?',
  },
  {
    answers: 'reserve',
    title: 'Could you put a fiddle leaf fig aside until I get there?',
    text: 'For three days; your name, please?',
  },
  {
    answers: 'light',
    title: 'What grows in a bathroom without a window?',
    text: 'A ZZ plant, with a lamp now and then.',
  },
  { answers: 'light', title: 'Which plant survives in low light?', text: 'A snake plant.' },
];
