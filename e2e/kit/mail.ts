import type { Porch } from './porch';

/** A mail as it lies in a mailbox on the street. */
export interface Boxed {
  id: number;
  subject: string;
  text: string;
  replyTo: string;
}

export const mailsOf = async (porch: Porch, address: string): Promise<Boxed[]> =>
  (await fetch(`${porch.site}/mail/${address}/mails`)).json();

/** Mail goes out by the street, and comes in by a port of the house's own. */
export const setMail = (porch: Porch) =>
  porch.ask('PUT', '/api/mail', {
    outgoing: {
      host: '127.0.0.1',
      port: porch.streetMailPort,
      security: 'none',
      user: '',
      from: 'hello@quillfern.example',
    },
    incoming: { kind: 'own', domain: 'quillfern.example' },
    outgoingPassword: null,
    incomingPassword: null,
  });
