/** A number of things in a language with one form for one and another for all else: "1 person", "3 people". */
export const many = (count: number, one: string, more: string): string =>
  count === 1 ? `1 ${one}` : `${count} ${more}`;
