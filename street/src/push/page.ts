import type { FastifyInstance } from 'fastify';
import { choice, escaped, streetPage } from '../page';
import { type Arrival, type Fault, faults, type PushService } from './service';

const faultsInWords: Record<Fault, string> = {
  none: 'Takes everything',
  gone: 'Says that the device has gone (410)',
  slow: 'Answers after 15 seconds',
  'too-many': 'Says that it is too many (429)',
  'too-large': 'Says that it is too large (413)',
  refused: 'Refuses the sender (403)',
  broken: 'Is broken (500)',
};

const arrivalRow = ({ at, urgency, ttl, topic, text }: Arrival): string => `<li>
<b>${new Date(at).toISOString().slice(11, 19)}</b> urgency ${escaped(urgency)}, kept ${ttl} s${topic ? `, topic ${escaped(topic.slice(0, 8))}…` : ''}
<pre>${text === null ? 'It could not be opened.' : escaped(text)}</pre></li>`;

const devicePart = (service: PushService, device: string): string => `<section>
<h2>${escaped(device)}</h2>
<form method="post" action="/push/${encodeURIComponent(device)}">
<label>What it does ${choice('fault', faultsInWords, service.faultOf(device))}</label> <button>Set</button></form>
<ol reversed>${service.arrivals(device).slice(-20).reverse().map(arrivalRow).join('') || '<li>Nothing has come yet.</li>'}</ol>
</section>`;

const page = (service: PushService): string =>
  streetPage(
    'The street’s push service',
    `<p>Pushes as RFC 8030 has them. What came for each device is opened here and shown, which a real one cannot do.</p>
${
  service
    .devices()
    .map((device) => devicePart(service, device))
    .join('') || '<p>No device has asked to be rung yet.</p>'
}`,
  );

/** What came, as a page, with the switches for what may go wrong. */
export const pushPage = (app: FastifyInstance, service: PushService): void => {
  app.get('/push', async (_request, reply) =>
    reply.type('text/html; charset=utf-8').send(page(service)),
  );
  app.post<{ Params: { device: string }; Body: { fault: string } }>(
    '/push/:device',
    async (request, reply) => {
      const fault = faults.find((one) => one === request.body.fault);
      if (fault) service.setFault(request.params.device, fault);
      return reply.redirect('/push', 303);
    },
  );
};
