/** Words by which somebody sells something to the business, or means to cheat it; in small letters. */
const signs: readonly RegExp[] = [
  /\bclick(?:ing)?\b|\bklick\w*/,
  /\bclaim\b|\bsichern sie\b|\beinlösen\b/,
  /\bcongratulations\b|\bherzlichen glückwunsch\b/,
  /\bwinners?\b|\byou(?:'ve| have)? won\b|\bgewonnen\b/,
  /\b(?:been|were) selected\b|\bausgewählt\b/,
  /\bexclusive\b|\bexklusiv\w*/,
  /\bloans?\b|\bkredite?\b|\bcrypto\w*|\bkrypto\w*|\bbitcoin\b|\binvestment\b/,
  /\bseo\b|\branking\b|\bbacklinks?\b/,
  /\bsearch (?:engines?|results)\b|\bsuchmaschinen?\b/,
  /\boptimi[sz]\w*|\boptimier\w*/,
  /\bact now\b|\blimited time\b|\bnur (?:noch )?heute\b|\bjetzt\b.*!/,
  /\bguest post\b|\bsponsored post\b|\bgastbeitrag\b/,
  /\b(?:confirm|verify)\b.*\b(?:account|address|details|card)\b/,
];

const SIGNS_LEAST = 2;

/** Whether a message offers something to the business and asks it nothing: two signs of it are needed, as one is in many questions. */
export const isPitch = (text: string): boolean => {
  const small = text.toLowerCase().replaceAll('’', "'");
  return signs.filter((sign) => sign.test(small)).length >= SIGNS_LEAST;
};
