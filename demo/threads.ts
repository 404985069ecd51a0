import { facts } from '@porch/street/site/facts';

const { delivery, monstera, parkingSpaces, plantHoliday, post, repotting, staghornKit } = facts;

/**
 * What was said, thread by thread: lines that begin with `>` are ours, and with `[shelf X]` something of the shelf
 * goes with them; `[picture]` sends one, and `[goes to X]` is a step on the website's path.
 */
export const threads: readonly (readonly string[])[] = [
  [
    'Hello, is the big variegated monstera from the window still for sale?',
    `> [shelf monstera] It is. £${monstera.withPot} with the pot, £${monstera.without} without. Shall I put your name on it?`,
    'With the pot please! I come by on Saturday.',
    '> Done. It stands behind the counter from Friday.',
  ],
  [
    'My calathea drops a leaf every day. What am I doing wrong?\n[picture]',
    '> Thank you for the picture. The edges look dry rather than drowned. How far is it from the radiator?',
    'About a metre…',
    '> That is it, I think. Two metres away and a saucer of wet gravel under it. Give it two weeks.',
    'Moved it just now. Thank you so much.',
  ],
  [
    'Do you deliver to Netherby?',
    `> We do, on ${delivery.days}. £${delivery.cost}, free from £${delivery.freeFrom}.`,
  ],
  [
    'Can I bring a fiddle leaf fig in for repotting? It is about 1.80 tall.',
    `> You can. For that height repotting is £${repotting.tall} with soil. Thursday morning is quiet.`,
    'Thursday at ten?',
    '> Ten is good. Bring the pot you want it in, or choose one here.',
  ],
  [
    '[goes to Delivery]',
    'My order QF-1043 says delivered, but there is nothing at my door.',
    '> I am sorry. The driver left it at number 14, with Mrs Dunmore. Is that near you?',
    'Two doors down. Got it, all fine!',
  ],
  [
    'How often should I water a string of pearls in winter?',
    '> Every three weeks at most. When the pearls look a little flat, not before.',
  ],
  [
    'Is the workshop on terrariums still open for two?',
    '> Two places left on the 5th, 14:00. 35 each with everything you take home.',
    'We take them. Names: Dewi and Ann.',
    '> You are both on the list.',
  ],
  [
    'There are tiny flies all over the soil of my pothos.\n[picture]',
    '> Fungus gnats. Let the top three centimetres dry out and put in a yellow card. We have them at the counter for 3.',
  ],
  [
    'Do you have pots without a hole, 21 cm, white?',
    '> Two left, matt white, 21 cm across inside.',
    'Could you keep one until tomorrow?',
    '> It has your name on it.',
  ],
  [
    'Hi! Which plants are safe with cats?',
    '> Spider plants, calatheas, most ferns and the parlour palm. No lilies, no pothos, no monstera.',
    'That is half my wish list gone',
    '> We have a shelf with a cat on it. Everything there is safe.',
  ],
  ['Are you open on Boxing Day?', `> No, we are shut ${facts.winterBreakInWords}.`],
  [
    'The palm arrived with a broken frond.\n[picture]',
    '> Oh no. Cut it at the base, it will not mind. And I take 8 off your order, it is on its way back to your card.',
    'That is kind of you, thank you',
  ],
  [
    'Do you buy back plants? We are moving abroad.',
    '> Not buy, but we give them a home on the adoption shelf. Bring them on a weekday.',
  ],
  [
    'What do I need to mount a staghorn fern on wood?',
    `> [shelf staghorn-kit] A board, sphagnum moss, fishing line and patience. We sell a kit for £${staghornKit}, or we do it with you on the bench.`,
  ],
  [
    'Good morning, do you do office plants with care? About 20 pots.',
    '> Good morning! Yes, every second week. Where is your office and how much light is there?',
    'Mill Lane, second floor, large windows to the north.',
    '> I would come and look before I name a price. Wednesday at 16:00?',
    'Wednesday suits. Ask for Gil at the desk.',
  ],
  [
    'Can I pay with a gift card on the website?',
    '> Yes: there is a field for it below the basket. If it does not take the code, write it to nobody and call us.',
  ],
  [
    'Is this scale or just dirt?\n[picture]',
    '> Scale, I am afraid. Wipe with soft soap and water every four days, three times. Keep it away from the others.',
  ],
  [
    'How large does a Ficus Audrey get?',
    '> Three metres in a bright stairwell, if nobody stops it. You can.',
  ],
  [
    'Do you have any carnivorous plants at the moment?',
    '> Six Venus flytraps and two pitcher plants came in this morning.',
    'On my way!',
  ],
  [
    'Could you write a card with the delivery? For my mother.',
    '> With pleasure. What shall it say?',
    '"For the windowsill that was too tidy. Love, Juno"',
    '> That is a lovely line. It goes out on Friday.',
  ],
  [
    'I was charged twice for order QF-0987',
    '> I see it, the second one never went through and falls off by itself within three days. If it does not, write again and I chase it.',
  ],
  [
    'My snake plant smells bad.',
    '> That is usually rot. Is the lowest part soft?',
    'Yes, brown and soft',
    '> Take it out, cut everything soft, let it dry for two days and put it in new soil. No water for two weeks.',
  ],
  [
    'Do you stock peat free soil in 40 litre bags?',
    '> Always. 12.50, and Tobias carries it to the car.',
  ],
  [
    'Hello? Is this a real person?',
    '> It is. Maren, with soil on her hands.',
    'Ha, great. Then: can a bird of paradise stand in a bathroom?',
    '> If the bathroom has a real window, yes. It likes the steam.',
  ],
  [
    'What time is the plant clinic on Saturday?',
    '> Ten to one, no need to book. Bring the patient or a picture.',
  ],
  [
    'Would like 12 small succulents as wedding favours for 17 June',
    '> Congratulations! 12 at 3.20, with a paper sleeve. I keep them aside if you say so by the end of May.',
    'Yes please, the bride is called Wanda',
    '> They are yours.',
  ],
  ['Is the rubber plant in the window the burgundy one?', '> It is, 1.20 tall, 39.'],
  [
    'Can you tell what this is? Found it at my gran\u2019s.\n[picture]',
    '> A hoya, and an old one! If it ever flowers, send me another picture, please.',
  ],
  [
    'Do you ship to the islands?',
    `> Plants up to ${post.centimetres} cm, by post, on ${post.day} so that they do not sit over the weekend.`,
  ],
  [
    'The voucher VERDE10 does not work',
    '> That one ended in October. But you asked nicely: the next one is HELLO10, until Sunday.',
  ],
  [
    'Do you repot orchids too?',
    `> We do, repotting is £${repotting.small} with bark. Not while they flower, though.`,
  ],
  [
    'Will an olive tree live through the winter outside here?',
    '> Against a south wall with fleece, usually. In a pot on a windy balcony, not. Where would it stand?',
    'Balcony, third floor…',
    '> Then bring it in to the coolest bright room you have.',
  ],
  [
    'Your website shows the parlour palm as sold out, is that right?',
    '> The large ones yes, small ones come on Thursday. Shall I tell you when they are here?',
    'Yes please',
  ],
  [
    'Could somebody water my plants while I am away? Two weeks in August.',
    `> We have a plant holiday: they come to us. £${plantHoliday} a pot and week.`,
  ],
  [
    'Can I return a ceramic pot? It is too small after all.',
    '> Within 30 days, unused. Bring the receipt or the order number.',
  ],
  [
    'What do you recommend for a dark hallway?',
    '> Honestly: a lamp, and then an aspidistra. It is called the cast iron plant for a reason.',
  ],
  [
    'How do I get rid of mealybugs?',
    '> Cotton bud, alcohol, every joint. Again after a week. And again.',
  ],
  [
    'Is there parking at the nursery?',
    `> ${parkingSpaces} spaces in the yard, and the lane behind it after ten.`,
  ],
  [
    'Do you have a job going on Saturdays?',
    '> From March, yes. Send a few lines about yourself to hello@quillfern.example.',
  ],
  ['Do you know when the lemon trees come in?', '> Second week of April if the lorry is kind.'],
  [
    'Are your plants grown here?',
    '> About half. The rest comes from two growers within an hour of here.',
  ],
  [
    'Which fertiliser for a money tree?',
    '> Any for green plants, half the dose, April to September.',
  ],
];

/** What stands without an answer in the end: left while nobody was in, or waiting now. */
export const notes: readonly (readonly string[])[] = [
  [
    'Good evening, could you keep the two small bonsai from the website for me? I can come on Thursday after five.',
  ],
  [
    'My order QF-1101 should have come today. Can you look where it is? I am at work until four tomorrow.',
  ],
  ['Is this bad?\n[picture]'],
  ['Need 30 pots of heather for graves by Sunday, is that possible at all? Please call.'],
];

export const waiting: readonly (readonly string[])[] = [
  [
    '[goes to Monstera deliciosa]',
    'Hi, is the monstera on the page the one I would get, or one like it?',
  ],
  [
    'Do you have moss poles longer than a metre?',
    '> We do: 1.20 and 1.50.',
    'Great, and do they come with ties?',
  ],
  [
    '[goes to Repotting bench]',
    'Is somebody at the bench today? I have a very sad begonia with me.',
  ],
];
