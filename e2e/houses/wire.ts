/** What a test asks of the process in which its house and its street stand. */
export type Question =
  | { ask: 'open'; key: string; what: 'house' | 'street'; env: Record<string, string> }
  | { ask: 'clock' | 'close'; key: string; at: number };

export type Answer = { port: number; firstCode: string | null } | null;

export type Reply = { id: number; answer: Answer } | { id: number; failed: string };
