/** A mail's text in two: what its writer says, and what stood there besides; both empty where there was nothing. */
export interface Parted {
  said: string;
  /** What they answer, and their signature. Where they answered in between: the whole, so that it can be followed. */
  rest: string;
}

/** A line of a mail is looked at so far; what makes an attribution or a header stands before. */
const LOOKED_AT = 400;
/** An attribution may have been wrapped onto so many lines. */
const WRAPPED_MOST = 3;
/** The header lines that a program puts over what is answered. */
const HEADERS_MOST = 8;
const HEADERS_LEAST = 3;
/** A signature is no longer (RFC 3676, 4.3, names four lines as good manners). */
const SIGNATURE_LINES_MOST = 10;
/** From here on a program may have broken a quoted line in two, its end without a sign. */
const BROKEN_FROM = 60;

/** As programs write whose mail it was: in brackets after a name. */
const NAMED_ADDRESS = /[<(]\s*[^\s@<>()]+@[^\s@<>()]+\s*[>)]/u;
const ADDRESS = /[^\s@<>[\]]@[^\s@<>[\]]+\.\p{L}{2,}/u;
const YEAR = /(?<!\d)(20\d\d|\d{1,2}[./-]\d{1,2}[./-]\d\d)(?!\d)/;
const TIME = /(?<!\d)\d{1,2}[:.h]\d\d(?!\d)/;
const QUOTED = /^\s{0,3}(?:>|\|(?:\s|$))/;
const HEADER = /^[\s*_]*\p{L}[\p{L}\p{M} '.-]{0,24}[*_]*\s?[:\uff1a]/u;
/** How programs name whoever wrote, over what is answered. */
const WRITER_NAMES = new Set(
  'from von de da van od från fra lähettäjä expéditeur mittente nadawca feladó от від από kimden gönderen saatja nuo no dari từ מאת من 差出人 送信者 发件人 寄件者 จาก प्रेषक'
    .split(' ')
    .concat('de la', 'от кого', '보낸 사람'),
);
/** And what it was about. */
const SUBJECT_NAMES = new Set(
  'subject betreff objet asunto assunto oggetto onderwerp temat ämne emne aihe předmět predmet tárgy subiect тема θέμα konu teema tema assumpte subjek נושא الموضوع 件名 主题 主旨 제목 เรื่อง विषय'.split(
    ' ',
  ),
);
/** "-----Original Message-----" in any language, and the rule that stands in its place. */
const DIVIDER = /^\s*(?:[-_]{3,}\s*\p{L}.{1,50}\S\s*[-_]{3,}|[-_]{20,})\s*$/u;
/** Two dashes; some programs lose the space after them that makes them those over a signature (RFC 3676, 4.3). */
const SIGNATURE = /^--\s?$/;
const SURE_SIGNATURE = /^-- $/;
/** What stands in signatures: an address, a telephone number, a page. */
const IN_SIGNATURES = /\S@\S|(?:\d[\s/().-]*){6}|https?:|www\./i;
/** A telephone's own line is short, and is no sentence. */
const PHONE_LINE_LONGEST = 50;
const IN_SENTENCES = /[.,;!?]/;
/** What a telephone puts under a mail by itself. */
const FROM_A_PHONE =
  /^(?:sent (?:from|with|via) |von (?:meinem|meiner|unterwegs) .*gesendet|gesendet (?:von|mit|über) |envoyé (?:de|depuis|à partir) |enviado (?:desde|do|a partir) |inviato (?:da|dal) |verzonden (?:vanaf|met) |verstuurd (?:vanaf|met) |skickat från |sendt fra |lähetetty |wysłane? z |odesláno z |отправлено (?:с|из) |надіслано з |从我的.*发送|发自我的|.+から送信$)/iu;

/** What a program puts over what is passed on, where it puts no rule. */
const PASSED_ON =
  /^(?:begin forwarded message|anfang der weitergeleiteten (?:nachricht|e-mail)|début du message (?:réexpédié|transféré)|inizio messaggio inoltrato|inicio del mensaje reenviado|begin doorgestuurd bericht|início da mensagem (?:re)?encaminhada|początek przekazywanej wiadomości|vidarebefordrat brev|videresendt besked|začátek přeposílané zprávy|начало переадресованного сообщения)\s?:$/iu;

/** What is looked at of a line: without signs that only say which way it runs, and no-break spaces as spaces. */
const plain = (line: string): string =>
  line
    .slice(0, LOOKED_AT)
    .replace(/[\u200e\u200f\u202a-\u202e\u2066-\u2069]/g, '')
    .replace(/[\u00a0\u202f]/g, ' ')
    .trimEnd();

const isBlank = (line: string | undefined): boolean => line === undefined || line.trim() === '';

const nextFull = (lines: readonly string[], from: number): number => {
  let at = from;
  while (at < lines.length && isBlank(lines[at])) at += 1;
  return at;
};

/** A line as it would stand in no list. */
const unlisted = (line: string): string => line.replace(/^\s*[*\u2022\u00b7]\s+/, '');

interface HeaderLine {
  label: string;
  value: string;
}

/** Of each line of a text. */
type Headers = readonly (HeaderLine | null)[];

const headerIn = (line: string): HeaderLine | null => {
  const bare = unlisted(line);
  const label = HEADER.exec(bare)?.[0];
  if (label === undefined) return null;
  const word = label.replace(/[*_:\uff1a]/g, '').trim();
  return { label: word.toLowerCase(), value: bare.slice(label.length).trim() };
};

const isNamed = ({ label }: HeaderLine): boolean =>
  WRITER_NAMES.has(label) || SUBJECT_NAMES.has(label);

/** Of two lines, one of which is empty, the other: some programs put each thing in a paragraph of its own. */
const pastOneBlank = (lines: readonly string[], at: number): number =>
  isBlank(lines[at]) ? at + 1 : at;

/** The header lines that begin here, with what stands below their names or goes on below it. */
const headersFrom = (lines: readonly string[], headers: Headers, from: number): HeaderLine[] => {
  const block: HeaderLine[] = [];
  let at = from;
  while (block.length < HEADERS_MOST) {
    const known = headers[at];
    if (!known) break;
    const header = { ...known };
    at += 1;
    const below = pastOneBlank(lines, at);
    const next = headers[below];
    // "Subject:" over "Re: Ferns" has its value there, "Cc:" over "Subject:" has none.
    const isNextNamed = next ? isNamed(next) : false;
    if (header.value === '' && !isBlank(lines[below]) && (isNamed(header) || !isNextNamed)) {
      header.value = (lines[below] ?? '').trim();
      at = below + 1;
    }
    for (let more = 0; more < WRAPPED_MOST && /[,;]\s*$/.test(lines[at - 1] ?? ''); more += 1) {
      if (headers[at] || isBlank(lines[at])) break;
      header.value += ` ${(lines[at] ?? '').trim()}`;
      at += 1;
    }
    block.push(header);
    at = pastOneBlank(lines, at);
  }
  return block;
};

/**
 * Whether a program's header lines over what is answered begin here: several in a row with a date, that say whose it was.
 * A form of a website has such lines too, and says it in other words.
 */
const isHeaderBlock = (lines: readonly string[], headers: Headers, at: number): boolean => {
  if (!headers[at]) return false;
  const block = headersFrom(lines, headers, at);
  const values = block.map(({ value }) => value);
  const isDated = values.some((value) => YEAR.test(value) && TIME.test(value));
  if (block.length < HEADERS_LEAST || !isDated) return false;
  const hasWriter = block.some(({ label }) => WRITER_NAMES.has(label));
  const isUnder = DIVIDER.test(lines[at - 1] ?? '') || DIVIDER.test(lines[at - 2] ?? '');
  const hasSubject = block.some(({ label }) => SUBJECT_NAMES.has(label));
  return hasWriter
    ? isUnder || hasSubject || values.some((value) => ADDRESS.test(value))
    : values.some((value) => NAMED_ADDRESS.test(value));
};

/** So many marked lines in a row were not quoted by hand. */
const RUN_LEAST = 3;

const isRun = (lines: readonly string[], from: number): boolean =>
  lines.slice(from, from + RUN_LEAST).filter((line) => QUOTED.test(line)).length === RUN_LEAST;

/** A line that goes on with the one before it: it begins in the middle of something. */
const GOES_ON = /^\s*(?:\p{Ll}|[<(\d])/u;
/** A line after which something new begins. */
const SENTENCE_ENDS = /[.!?\u2026\u3002]["'\u201d\u00bb)]?$/;

/** Whether a bracket ends here that began above. */
const closesMore = (text: string): boolean => text.split(')').length > text.split('(').length;

/**
 * Where the line that says who wrote what follows begins, of which the end (a colon) stands at `end`. A line above it is
 * part of it only where something of it is missing without that: the date, or its beginning. What stands right above
 * it is an answer's last line far more often than its own first.
 */
const attributionStart = (lines: readonly string[], end: number): number => {
  let start = end;
  while (end - start + 1 < WRAPPED_MOST) {
    const before = lines[start - 1];
    if (before === undefined || isBlank(before) || QUOTED.test(before)) return start;
    const joined = lines.slice(start, end + 1).join(' ');
    const isDatedAbove = !YEAR.test(joined) && YEAR.test(before) && TIME.test(before);
    // What has its date already begins with a small letter in some languages: above it can only be a name.
    const isCutAtDay = /^\s*\d/.test(lines[start] ?? '') && /,$/.test(before.trimEnd());
    const isDated = YEAR.test(joined) && TIME.test(joined);
    const isWhole = isDated && !NAMED_ADDRESS.test(before) && !isCutAtDay;
    const isBegun =
      GOES_ON.test(lines[start] ?? '') && !isWhole && !SENTENCE_ENDS.test(before.trimEnd());
    if (!isDatedAbove && !isBegun && !closesMore(joined)) return start;
    start -= 1;
  }
  return start;
};

/** How many lines in a row are marked from here on. */
const runFrom = (lines: readonly string[], from: number, until: number): number => {
  let end = from;
  while (end < until && QUOTED.test(lines[end] ?? '')) end += 1;
  return Math.max(1, end - from);
};

/** How many lines from here say who wrote what follows ("On …, … wrote:"); 0: none do. */
const attributionAt = (lines: readonly string[], at: number): number => {
  let joined = '';
  for (let count = 1; count <= WRAPPED_MOST; count += 1) {
    const line = lines[at + count - 1];
    if (line === undefined || isBlank(line) || QUOTED.test(line)) return 0;
    joined = `${joined} ${line.trim()}`.trim();
    if (!/[:\uff1a]$/.test(joined)) continue;
    if (attributionStart(lines, at + count - 1) !== at) continue;
    const [hasAddress, hasYear] = [ADDRESS.test(joined), YEAR.test(joined)];
    const next = nextFull(lines, at + count);
    const isSure = hasAddress || hasYear || (count === 1 && isRun(lines, next));
    if (QUOTED.test(lines[next] ?? '') && isSure) return count;
    // Over what is not marked only a program's own form will do.
    if (NAMED_ADDRESS.test(joined) && hasYear && TIME.test(joined)) return count;
  }
  return 0;
};

/** A quoted line of which a program has broken off the end. */
const isBrokenOff = (lines: readonly string[], at: number): boolean =>
  (lines[at - 1] ?? '').length >= BROKEN_FROM &&
  QUOTED.test(lines[at - 1] ?? '') &&
  QUOTED.test(lines[at + 1] ?? '');

/** Where the header lines begin that stand over our own line, of which some programs write but two. */
const headersOver = (lines: readonly string[], at: number): number => {
  let first = at;
  while (first > 0 && at - first < HEADERS_MOST && isBlank(lines[first - 1])) first -= 1;
  const end = first;
  while (first > 0 && end - first < HEADERS_MOST && HEADER.test(lines[first - 1] ?? '')) first -= 1;
  return end - first >= 2 ? first : at;
};

/** Where what is answered begins, as nothing of the writer's follows it; the number of lines where it never does. */
const tailFrom = (lines: readonly string[], ourLines: readonly string[]): number => {
  const isOurs = (line: string): boolean => ourLines.some((ours) => line.includes(ours));
  const headers = lines.map(headerIn);
  const at = lines.findIndex((line, index) => isOurs(line) || isHeaderBlock(lines, headers, index));
  if (at < 0) return lines.length;
  return isOurs(lines[at] ?? '') ? headersOver(lines, at) : at;
};

/** Which of the lines are quoted, up to where nothing of the writer's follows. */
const quotedIn = (lines: readonly string[], until: number): boolean[] => {
  const isQuoted: boolean[] = new Array(lines.length).fill(false);
  let isAfter = false;
  for (let at = 0; at < until; at += 1) {
    const count = attributionAt(lines, at);
    if (count > 0) {
      isAfter = true;
      isQuoted.fill(true, at, at + count);
      // Over nothing that is marked as quoted: some programs mark nothing, and all that follows is.
      const isMarked = QUOTED.test(lines[nextFull(lines, at + count)] ?? '');
      if (!isMarked) return isQuoted.fill(true, at);
      at += count - 1;
    } else if (QUOTED.test(lines[at] ?? '') || (isAfter && isBrokenOff(lines, at))) {
      const run = runFrom(lines, at, until);
      const isLast = nextFull(lines, at + run) >= until;
      // A line or two with that sign in the middle of a mail were typed by hand.
      const isProgram = isAfter || run >= RUN_LEAST || isLast;
      if (isProgram) isQuoted.fill(true, at, at + run);
      at += run - 1;
    }
  }
  return isQuoted.fill(true, until);
};

/** Sets aside what follows two dashes on a line of their own, where it can be nothing but a signature. */
const markSignature = (
  original: readonly string[],
  lines: readonly string[],
  isQuoted: boolean[],
): void => {
  for (const [at, line] of lines.entries()) {
    if (!SIGNATURE.test(line) || isQuoted[at]) continue;
    // No further than a signature goes: of many such lines each would look to the end.
    const most = at + SIGNATURE_LINES_MOST + 1;
    let end = at;
    while (end <= most && end < lines.length && !isQuoted[end]) end += 1;
    const isSure = SURE_SIGNATURE.test(original[at] ?? '');
    const isLike = isSure || lines.slice(at, end).some((one) => IN_SIGNATURES.test(one));
    if (end <= most && isLike) isQuoted.fill(true, at, end);
  }
};

/** Whether a line is what a telephone puts under a mail: apart from what was written, and in no sentence. */
const isFromPhone = (lines: readonly string[], at: number): boolean => {
  const line = (lines[at] ?? '').trim();
  const isApart = isBlank(lines[at - 1]) && line.length <= PHONE_LINE_LONGEST;
  return isApart && FROM_A_PHONE.test(line) && !IN_SENTENCES.test(line);
};

/** Sets aside what a program has put under the answer: a rule over what is quoted, and the telephone's own line. */
const markTrailing = (lines: readonly string[], isQuoted: boolean[]): void => {
  for (let at = lines.length - 1; at >= 0; at -= 1) {
    if (isQuoted[at]) continue;
    const line = lines[at] ?? '';
    const isOver = isQuoted[at + 1] === true;
    const isProgram =
      isFromPhone(lines, at) || (isOver && (DIVIDER.test(line) || PASSED_ON.test(line.trim())));
    if (!isBlank(line) && !isProgram) return;
    isQuoted[at] = true;
  }
};

const textOf = (lines: readonly string[]): string =>
  lines
    .join('\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim();

/**
 * Parts a mail's plain text into what its writer says and the rest. It goes by shapes that programs of any language
 * share: our own line, marked lines (RFC 3676, 4.5), header lines with an address and a date, a line with who and
 * when that ends in a colon. `ourLines`: parts of lines above which our own mails ask for the answer. Where nothing
 * would be left, all of it is theirs.
 *
 * "Yes.\n\nOn 26/11/2026 09:12, Maren wrote:\n> Two?" → { said: "Yes.", rest: "On 26/11/2026 …\n> Two?" }
 */
export const partReply = (text: string, ourLines: readonly string[] = []): Parted => {
  const original = text.replace(/\r\n?/g, '\n').split('\n');
  const lines = original.map(plain);
  const isQuoted = quotedIn(lines, tailFrom(lines, ourLines));
  markSignature(original, lines, isQuoted);
  markTrailing(lines, isQuoted);
  const said = textOf(original.filter((_, at) => !isQuoted[at]));
  if (!said) return { said: textOf(original), rest: '' };
  const firstQuoted = isQuoted.indexOf(true);
  const isAbove = firstQuoted < 0 || !isQuoted.includes(false, firstQuoted);
  const rest = isAbove ? original.filter((_, at) => isQuoted[at]) : original;
  return { said, rest: textOf(rest) };
};
