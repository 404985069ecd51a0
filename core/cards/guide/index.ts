/** A stretch of an answer as it is drawn. */
export type Block =
  | { kind: 'text' | 'heading'; text: string }
  /** Steps are numbered, items are not. */
  | { kind: 'steps' | 'items'; each: string[] }
  /** Which of the card's pictures, from 0. */
  | { kind: 'picture'; at: number };

const lineKinds = [
  [/^#{1,3}\s+(.+)$/, 'heading'],
  [/^\d{1,2}[.)]\s+(.+)$/, 'steps'],
  [/^[-*\u2022]\s+(.+)$/, 'items'],
  [/^\[picture (\d)\]$/i, 'picture'],
] as const;

const lineOf = (line: string): { kind: Block['kind']; text: string } => {
  for (const [pattern, kind] of lineKinds) {
    const text = pattern.exec(line)?.[1];
    if (text) return { kind, text };
  }
  return { kind: 'text', text: line };
};

const put = (blocks: Block[], { kind, text }: ReturnType<typeof lineOf>): void => {
  const last = blocks.at(-1);
  if (kind === 'heading') blocks.push({ kind, text });
  else if (kind === 'picture') blocks.push({ kind, at: Number(text) - 1 });
  else if (kind === 'text') {
    if (last?.kind === 'text') last.text += `\n${text}`;
    else blocks.push({ kind, text });
  } else if (last?.kind === kind) last.each.push(text);
  else blocks.push({ kind, each: [text] });
};

/**
 * An answer as it is drawn: a line that begins with `#` is a heading, with `1.` a step, with `-` an item of a list; a
 * line `[picture 1]` is that picture of the card. Pictures that have no such line come at the end; `pictures`: how many
 * there are.
 */
export const blocksOf = (answer: string, pictures: number): Block[] => {
  const blocks: Block[] = [];
  for (const paragraph of answer.split(/\n\s*\n/)) {
    const inside: Block[] = [];
    for (const line of paragraph.split('\n')) {
      if (line.trim() !== '') put(inside, lineOf(line.trim()));
    }
    const [first] = inside;
    const last = blocks.at(-1);
    // Steps with an empty line between them go on counting.
    if (first?.kind === 'steps' && last?.kind === 'steps') {
      last.each.push(...first.each);
      inside.shift();
    }
    blocks.push(...inside);
  }
  const isThere = (block: Block): boolean =>
    block.kind !== 'picture' || (block.at >= 0 && block.at < pictures);
  const drawn = blocks.filter(isThere);
  const placed = new Set(drawn.flatMap((block) => (block.kind === 'picture' ? block.at : [])));
  const rest = Array.from({ length: pictures }, (_none, at) => at).filter((at) => !placed.has(at));
  return [...drawn, ...rest.map((at): Block => ({ kind: 'picture', at }))];
};

/** An answer as words alone, for where nothing is drawn: headings without their mark, no pictures. */
export const plainAnswer = (answer: string): string =>
  answer
    .split('\n')
    .map((line) => {
      const { kind, text } = lineOf(line.trim());
      if (kind === 'picture') return null;
      return kind === 'heading' ? text : line;
    })
    .filter((line) => line !== null)
    .join('\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim();
