/** Somebody who writes to the business, in a way of their own. */
export interface Writer {
  name: string;
  language: 'en' | 'de';
  /** What they wrote was looked at while it was chosen how much is offered; else it is only measured. */
  isTunedOn: boolean;
  /** What they wrote, and what would have answered it; null: nothing that is stored. */
  messages: readonly (readonly [string, string | null])[];
}
