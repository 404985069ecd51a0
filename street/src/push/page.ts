import type { FastifyInstance } from 'fastify';
import { type Arrival, faults, type PushService } from './service';

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);

const faultsInWords: Record<(typeof faults)[number], string> = {
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
<label>What it does <select name="fault">${faults
  .map(
    (fault) =>
      `<option value="${fault}"${service.faultOf(device) === fault ? ' selected' : ''}>${faultsInWords[fault]}</option>`,
  )
  .join('')}</select></label> <button>Set</button></form>
<ol reversed>${service.arrivals(device).slice(-20).reverse().map(arrivalRow).join('') || '<li>Nothing has come yet.</li>'}</ol>
</section>`;

const page = (service: PushService): string => `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>The street’s push service</title><link rel="icon" href="data:,">
<style>body{max-width:760px;margin:0 auto;padding:24px;font:17px/1.5 sans-serif;color:#22304A;background:#FBF6EC}
pre{white-space:pre-wrap;overflow-wrap:anywhere;background:#F1E8D8;padding:8px}select,button{font:inherit;min-height:44px}</style>
</head><body><main><h1>The street’s push service</h1>
<p>Pushes as RFC 8030 has them. What came for each device is opened here and shown, which a real one cannot do.</p>
${
  service
    .devices()
    .map((device) => devicePart(service, device))
    .join('') || '<p>No device has asked to be rung yet.</p>'
}
</main></body></html>`;

/** What came, as a page, with the switches for what may go wrong. */
export const pushPage = (app: FastifyInstance, service: PushService): void => {
  app.addContentTypeParser(
    'application/x-www-form-urlencoded',
    { parseAs: 'string' },
    (_request, body, done) => done(null, Object.fromEntries(new URLSearchParams(String(body)))),
  );
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
