import type { Concepts } from './table';

/** What people mean by several words, as small businesses are asked it in English. */
export const en: Concepts = {
  words: {
    open: 'open opening opens opened close closes closing closed shut shuts hours',
    holiday:
      'holiday holidays bank christmas xmas easter boxing eve hol hols new-year festive may-day',
    deliver:
      'deliver delivers delivery deliveries delivered ship ships shipping shipped post postal postage send sending sent dispatch dispatched carriage transport courier van',
    parcel: 'parcel parcels package packages consignment shipment mail box goods',
    cost: 'cost costs price prices priced pricing charge charges charged fee fees pay expensive cheap cheaper rate rates',
    arrive:
      'arrive arrives arrived arriving arrival receive received come came comes reach reached',
    order: 'order orders ordered ordering purchase purchased bought buy',
    change: 'change changing amend cancel cancelled cancelling alter modify annul swap edit',
    broken:
      'broken break broke cracked crack smashed snapped crushed damage damaged damages destroyed shattered pieces torn faulty',
    return:
      'return returns returned returning refund refunds refunded exchange exchanges exchanged unused reimburse',
    tracking: 'tracking track tracked lost missing whereabouts news dispatched',
    water: 'water watering waters watered overwatering thirsty',
    insect:
      'fly flies gnat gnats midge midges insect insects bug bugs pest pests infested infestation',
    repot: 'repot repotting repotted pot pots potting',
    class: 'workshop workshops class classes course courses lesson lessons session sessions',
    park: 'park parking parked car cars drive driving bus buses',
    access:
      'wheelchair pram prams pushchair buggy stroller carriage accessible accessibility access disabled step steps ramp walker mobility',
    dog: 'dog dogs puppy puppies spaniel labrador terrier',
    pet: 'pet pets cat cats kitten kittens dog dogs puppy',
    gift: 'gift gifts voucher vouchers present presents token',
    toxic: 'toxic nontoxic poisonous poison harmless harmful dangerous hurt safe',
    pay: 'pay paying paid payment payments cash card cards contactless amex visa mastercard cheque cheques invoice transfer till paypal',
    trade:
      'trade office offices wedding weddings hotel hotels restaurant event events bulk wholesale quotation quote reception discount company catering',
    reserve: 'reserve reserved reserving reservation hold holding aside put-by keep keeping',
    dark: 'dark shade shady low-light dim light sunlight sun window windows windowless north',
    book: 'book booking booked bookings appointment appointments reservation slot slots',
    size: 'size sizes measure measurements dimensions tall height width wide',
    stock: 'stock available availability sold-out restock',
    work: 'job jobs vacancy vacancies hiring hire apply apprentice apprenticeship',
    guarantee: 'guarantee guaranteed warranty',
    repair: 'repair repairs repaired fix fixed mend mended',
  },
  phrases: [
    [/\bhow much\b/, 'cost'],
    [/\bmoney back\b|\b(?:give|bring|take|send|get)\b.{0,24}\bback\b/, 'return'],
    [
      /\bwhat time\b|\b(?:till|until) (?:when|what|which)\b|\b(?:when|how late).{0,12}\bare you\b/,
      'open',
    ],
    [/\bput (?:\w+ ){0,2}(?:by|aside)\b|\bset (?:\w+ ){0,2}aside\b/, 'reserve'],
    [
      /\b(?:where is|where's|no sign of|not (?:here|arrived)|nothing (?:has )?(?:come|arrived))\b/,
      'tracking',
    ],
    [/\bbank hol\w*|\bnew year\w*/, 'holiday'],
    [/\bnot (?:a )?(?:lot of|much) (?:sun|light)\b|\bno (?:sun|window|light)\b/, 'dark'],
  ],
};
