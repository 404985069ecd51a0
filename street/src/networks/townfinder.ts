import { createHmac, randomUUID } from 'node:crypto';
import type { FastifyInstance } from 'fastify';
import { choice, escaped } from '../page';
import { forBusiness, isBearer } from './business';
import type { Network, Wire } from './network';

const HOUR_MS = 3_600_000;

interface Listing {
  chat: boolean;
  away_until: string | null;
  opening_hours: string;
}

interface Question {
  id: string;
  question: string;
  answer: string;
}

const QUESTIONS_MOST = 40;

/** What the directory has of the business: its listing, and the questions that it answers, in order. */
export interface Listed {
  listing: Listing;
  questions: Question[];
}

export const newListed = (): Listed => ({
  listing: { chat: true, away_until: null, opening_hours: '' },
  questions: [],
});

const fieldsOf = ({ question, answer }: Pick<Question, 'question' | 'answer'>): string =>
  `<p><label>Question <input name="question" size="40" maxlength="120" value="${escaped(question)}"></label></p>
<p><label>Answer <textarea name="answer" maxlength="1000">${escaped(answer)}</textarea></label></p>`;

const questionForms = ({ questions }: Listed): string =>
  questions
    .map(
      (one) => `<li><form method="post" action="/townfinder/questions">
<input type="hidden" name="id" value="${escaped(one.id)}">${fieldsOf(one)}
<button name="do" value="change">Change it</button> <button name="do" value="remove">Take it away</button></form></li>`,
    )
    .join('');

const prove = (body: string, word: string) => ({
  body,
  headers: {
    'content-type': 'application/json',
    'townfinder-proof': createHmac('sha256', word).update(body).digest('hex'),
  },
});

/** A directory of businesses: a listing with a chat, an away switch and opening hours. */
export const townfinderWire = (listed: Listed): Wire => ({
  path: '/townfinder',
  title: 'Townfinder',
  customers: [
    { id: 'tf-8841', name: 'Orla' },
    { id: 'tf-1203', name: 'Jem from the bakery' },
  ],
  greeting: () => null,
  hand: (happened, { word }) => {
    if (happened.what === 'listing') return prove(JSON.stringify({ kind: 'changed' }), word);
    if (happened.what !== 'said' || happened.said.odd) return null;
    const { id, customer, text, at } = happened.said;
    const event = { kind: 'chat', id, who: customer, text, at: new Date(at).toISOString() };
    return prove(JSON.stringify(event), word);
  },
  more: () => `<h2>The listing</h2>
<p>Chat is <strong>${listed.listing.chat ? 'on' : 'off'}</strong>, ${
    listed.listing.away_until
      ? `away until <strong>${escaped(listed.listing.away_until)}</strong>`
      : 'somebody is there'
  }. Open: <strong>${escaped(listed.listing.opening_hours) || 'not said'}</strong></p>
<form method="post" action="/townfinder/listing"><label>Change it here ${choice(
    'to',
    { on: 'Chat on', off: 'Chat off', hour: 'Away for an hour', tomorrow: 'Away until tomorrow' },
    'on',
  )}</label> <button>Change the listing</button></form>
<h2>Questions and answers</h2>
<ul>${questionForms(listed)}</ul>
<h3>Another question</h3>
<form method="post" action="/townfinder/questions">${fieldsOf({ question: '', answer: '' })}
<button name="do" value="add">Add it</button></form>`,
});

interface Posted extends Partial<Pick<Question, 'id' | 'question' | 'answer'>> {
  do?: string;
}

/** The business changes a question on the listing's own page. */
const change = (listed: Listed, { do: what, id, question = '', answer = '' }: Posted): void => {
  const { questions } = listed;
  if (what === 'remove') listed.questions = questions.filter((one) => one.id !== id);
  else if (question.trim() === '' || answer.trim() === '') return;
  else if (what === 'change') {
    listed.questions = questions.map((one) => (one.id === id ? { ...one, question, answer } : one));
  } else if (questions.length < QUESTIONS_MOST) {
    listed.questions = [...questions, { id: `tfq-${randomUUID()}`, question, answer }];
  }
};

export const townfinderRoutes = (
  app: FastifyInstance,
  network: Network,
  now: () => number,
  listed: Listed,
): void => {
  const { listing } = listed;
  const guarded = forBusiness(network, (request) => isBearer(request, network.setup().key));
  app.get(
    '/townfinder/listings/:id',
    guarded(() => ({ body: listing })),
  );
  app.post(
    '/townfinder/listings/:id',
    guarded((request) => {
      Object.assign(listing, request.body as Listing);
      return { body: listing };
    }),
  );
  app.get(
    '/townfinder/listings/:id/questions',
    guarded(() => ({ body: { questions: listed.questions } })),
  );
  app.post(
    '/townfinder/listings/:id/questions',
    guarded((request) => {
      const given = (request.body as { questions: Question[] }).questions;
      if (given.length > QUESTIONS_MOST) return { status: 422, body: { error: 'too many' } };
      listed.questions = given.map(({ id, question, answer }) => ({ id, question, answer }));
      return { body: { questions: listed.questions } };
    }),
  );
  app.post(
    '/townfinder/listings/:id/chat',
    guarded((request) => {
      const { ref, to, text } = request.body as { ref: string; to: string; text: string };
      if (network.fault() === 'window') return { status: 422, body: { error: 'window' } };
      return { body: { chat: network.take(ref, network.customer(to), text, []).id } };
    }),
  );
  app.post<{ Body: Posted }>('/townfinder/questions', async ({ body }, reply) => {
    change(listed, body);
    network.tellListing();
    return reply.redirect('/townfinder', 303);
  });
  app.post<{ Body: { to?: string } }>('/townfinder/listing', async ({ body }, reply) => {
    const tomorrow = new Date(now() + 24 * HOUR_MS);
    tomorrow.setUTCHours(9, 0, 0, 0);
    listing.chat = body.to !== 'off';
    listing.away_until =
      body.to === 'hour'
        ? new Date(now() + HOUR_MS).toISOString()
        : body.to === 'tomorrow'
          ? tomorrow.toISOString()
          : null;
    network.tellListing();
    return reply.redirect('/townfinder', 303);
  });
};
