import { fitsPattern } from '../../page-rules';

/** When a greeting is said, where all of it fits. */
export interface GreetingRules {
  /** Pages by path, as `fitsPattern` has them; none: every page. */
  pages: string[];
  afterSeconds: number;
  /** From which visit to which, the first being 1; `most` null: no end. */
  visits: { least: number; most: number | null };
  /** Hosts of the pages from which they came ("example.com" is "shop.example.com" too); none: from anywhere. */
  cameFrom: string[];
  /** Also while nobody is in. */
  whileNotLit: boolean;
}

/** A greeting as a page says it. */
export interface SaidGreeting extends GreetingRules {
  id: string;
  text: string;
  /** Who greets, and where their face is; null: they have none. */
  name: string;
  face: string | null;
}

/** Somebody on a page, before they have written anything. */
export interface Passing {
  path: string;
  /** How long they have been on this page, in seconds. */
  seconds: number;
  /** The first is 1. */
  visit: number;
  /** The host of the page from which they came to the website; '' where that is not known, or there was none. */
  cameFrom: string;
  isLit: boolean;
}

const isOfHost = (host: string, cameFrom: string): boolean => {
  const wanted = host.toLowerCase();
  const came = cameFrom.toLowerCase();
  return came === wanted || came.endsWith(`.${wanted}`);
};

/** Whether a greeting is for somebody, but for how long they have been there. */
const isFor = (
  { pages, visits, cameFrom, whileNotLit }: GreetingRules,
  passing: Passing,
): boolean =>
  (passing.isLit || whileNotLit) &&
  (pages.length === 0 || pages.some((page) => fitsPattern(page, passing.path))) &&
  passing.visit >= visits.least &&
  (visits.most === null || passing.visit <= visits.most) &&
  (cameFrom.length === 0 || cameFrom.some((host) => isOfHost(host, passing.cameFrom)));

/**
 * The greeting that comes next on this page, and in how many seconds: whichever waits least, of several the first. Null:
 * none does, as things are.
 */
export const nextGreeting = <One extends GreetingRules>(
  greetings: readonly One[],
  passing: Passing,
): { greeting: One; inSeconds: number } | null => {
  const fitting = greetings.filter((greeting) => isFor(greeting, passing));
  const [first] = fitting.sort((a, b) => a.afterSeconds - b.afterSeconds);
  if (!first) return null;
  return { greeting: first, inSeconds: Math.max(0, first.afterSeconds - passing.seconds) };
};
