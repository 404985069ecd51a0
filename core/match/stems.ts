import { newStemmer, type Stemmer } from 'snowball-stemmers';
import { deu, eng, fra, ita, nld, pol, porBr, spa } from 'stopword';

/** What is known of a language to match texts in it. */
interface Language {
  /** Words that say nothing of what a text is about. */
  stop: ReadonlySet<string>;
  stem: (word: string) => string;
}

/** What people write around what they want to know; no list of stop words has it. */
const courtesies: Readonly<Record<string, string>> = {
  en: 'hello hi hiya hey dear please thanks thank cheers ta regards morning afternoon evening sorry wondering wonder wondered question quick ask asking tell know help guys folks team kind kindly hope love lovely great ok okay yes no until till today tomorrow yesterday soon still already every each bad good nice maybe perhaps really bit thing things something anything everything somebody anybody someone anyone',
  de: 'hallo hi moin guten tag morgen abend bitte danke dank liebe lieber gruß grüße frage fragen wissen sagen hilfe ok ja nein bis heute gestern bald noch schon jeder jede jedes gut schlecht vielleicht etwas alles jemand',
  fr: "bonjour salut bonsoir merci svp plaît cordialement question demander savoir dire aide ok oui non aujourd'hui demain hier bientôt encore déjà chaque bon bonne mauvais peut-être quelque chose tout quelqu'un",
  es: 'hola buenos buenas días tardes noches gracias favor saludos pregunta preguntar saber decir ayuda ok sí no hasta hoy mañana ayer pronto todavía ya cada bueno malo quizás algo todo alguien',
  it: 'ciao salve buongiorno buonasera grazie prego favore saluti domanda chiedere sapere dire aiuto ok sì no fino oggi domani ieri presto ancora già ogni buono cattivo forse qualcosa tutto qualcuno',
  nl: 'hallo hoi dag goedemorgen goedemiddag goedenavond bedankt dank graag groeten vraag vragen weten zeggen hulp ok ja nee tot vandaag morgen gisteren gauw nog elke goed slecht misschien iets alles iemand',
  pl: 'cześć hej dzień dobry witam proszę dziękuję dzięki pozdrawiam pytanie pytać wiedzieć powiedzieć pomoc ok tak nie dziś dzisiaj jutro wczoraj wkrótce jeszcze już każdy dobry zły może coś wszystko ktoś',
  pt: 'olá oi bom boa dia tarde noite obrigado obrigada favor cumprimentos pergunta perguntar saber dizer ajuda ok sim não até hoje amanhã ontem logo ainda já cada bom mau talvez algo tudo alguém',
};

const stops: Readonly<Record<string, readonly string[]>> = {
  en: eng,
  de: deu,
  fr: fra,
  es: spa,
  it: ita,
  nl: nld,
  pl: pol,
  pt: porBr,
};

/** Of Polish there is none: its words are taken as they are. */
const stemmers: Readonly<Record<string, string>> = {
  en: 'english',
  de: 'german',
  fr: 'french',
  es: 'spanish',
  it: 'italian',
  nl: 'dutch',
  pt: 'portuguese',
};

/** One spelling of a word: "Don’t" → "don't", "Café" → "café". */
export const spelt = (word: string): string =>
  word.normalize('NFC').toLowerCase().replaceAll('’', "'");

/** Whoever writes on a phone leaves out what stands above letters. */
export const bare = (word: string): string => word.normalize('NFD').replace(/\p{M}/gu, '');

const KEPT_MOST = 50_000;

const languageOf = (code: string): Language => {
  const stop = new Set(
    [...(stops[code] ?? []), ...(courtesies[code] ?? '').split(' ')].map((word) => spelt(word)),
  );
  const name = stemmers[code];
  const stemmer: Stemmer | null = name ? newStemmer(name) : null;
  // A business writes with few words, again and again.
  const known = new Map<string, string>();
  const stem = (word: string): string => {
    const before = known.get(word);
    if (before !== undefined) return before;
    const found = bare(stemmer ? stemmer.stem(word) : word);
    if (known.size >= KEPT_MOST) known.clear();
    known.set(word, found);
    return found;
  };
  return { stop, stem };
};

const languages = new Map<string, Language>();

/** What is known of a language (ISO 639); of one that is not known nothing is left out and nothing stemmed. */
export const languageCalled = (code: string): Language => {
  const known = languages.get(code) ?? languageOf(code);
  languages.set(code, known);
  return known;
};
