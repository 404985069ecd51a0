import type { Wording } from '../../../kit/wording';

/** What an owner reads of a kind of network when a door to it is opened. */
export interface NetworkWords {
  /** What people call it; also what its door is called at first. */
  name: string;
  /** What it is, in a line. */
  more: string;
  /** Where what is asked for is found there. */
  find: string;
  /** What is asked for, by field. */
  fields: Readonly<
    Record<string, { label: string; more?: string; options?: Readonly<Record<string, string>> }>
  >;
  /** What is to be done at the network with what the house gives. */
  putIn: string;
  /** What the house gives, by name. */
  shows: Readonly<Record<string, { label: string; copy: string }>>;
}

/** Kinds whose other side a developer builds or sets up: the page with what that needs. */
export const developerPageOf: Readonly<Record<string, 'bridge' | 'phone' | 'text'>> = {
  bridge: 'bridge',
  phone: 'phone',
  text: 'text',
};

export type NetworkWording = Wording<NetworkWords>;
