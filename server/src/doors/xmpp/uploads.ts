import { xml } from '@xmpp/client';
import { z } from 'zod';
import { JobFailed } from '../../jobs/worker';
import type { Asking } from '../asking';
import type { Session } from './session';
import { ns } from './stanzas';

/** Where a server takes files, and how large ones. */
export const UploadsSchema = z.object({
  service: z.string().max(400),
  largestBytes: z.number().nonnegative(),
});
export type Uploads = z.infer<typeof UploadsSchema>;

const ITEMS_MOST = 20;

const infoOf = async (session: Session, service: string): Promise<Uploads | null> => {
  const iq = xml('iq', { type: 'get', to: service }, xml('query', { xmlns: ns.disco }));
  const info = (await session.ask(iq)).getChild('query', ns.disco);
  const features = info?.getChildren('feature') ?? [];
  if (!features.some(({ attrs }) => attrs.var === ns.upload)) return null;
  const fields = info?.getChildren('x', 'jabber:x:data').flatMap((x) => x.getChildren('field'));
  const said = fields?.find(({ attrs }) => attrs.var === 'max-file-size')?.getChildText('value');
  const largestBytes = Number(said ?? Number.NaN);
  return { service, largestBytes: Number.isFinite(largestBytes) ? largestBytes : 0 };
};

/** Where a server takes files (XEP-0363, 4); null: it takes none, or does not say how large ones. */
export const findUploads = async (session: Session): Promise<Uploads | null> => {
  const { domain } = session;
  const iq = xml('iq', { type: 'get', to: domain }, xml('query', { xmlns: ns.discoItems }));
  const isNo = (error: Error): null => {
    if (error.name !== 'StanzaError') throw error;
    return null;
  };
  const items = (await session.ask(iq).catch(isNo))?.getChild('query', ns.discoItems);
  const services = items?.getChildren('item').flatMap(({ attrs }) => attrs.jid ?? []) ?? [];
  for (const service of [domain, ...services.slice(0, ITEMS_MOST)]) {
    const found = await infoOf(session, service).catch(isNo);
    if (found) return found;
  }
  return null;
};

/** Headers that a server may want with a file (XEP-0363, 5). */
const headerNames = ['authorization', 'cookie', 'expires'];

/** Puts a file where a server says, and gives the link under which people fetch it. */
export const putFile = async (
  { session, asking, signal }: { session: Session; asking: Asking; signal: AbortSignal },
  { service }: Uploads,
  { name, type, bytes }: { name: string; type: string; bytes: Buffer },
): Promise<string> => {
  const request = {
    xmlns: ns.upload,
    filename: name,
    size: `${bytes.length}`,
    'content-type': type,
  };
  const iq = xml('iq', { type: 'get', to: service }, xml('request', request));
  const slot = await session.ask(iq).then(
    (answer) => answer.getChild('slot', ns.upload),
    (error) => {
      if (error.name !== 'StanzaError') throw error;
      throw new JobFailed('network-refused', true);
    },
  );
  const put = slot?.getChild('put');
  const address = put?.attrs.url ?? '';
  const link = slot?.getChild('get')?.attrs.url;
  if (!put || !link || !URL.canParse(address)) throw new JobFailed('answer-not-understood');
  const wanted = put.getChildren('header').flatMap((header) => {
    const wants = header.attrs.name?.toLowerCase() ?? '';
    const value = header.text().replace(/[\r\n]/g, '');
    return headerNames.includes(wants) ? [[wants, value] as const] : [];
  });
  const headers = {
    ...Object.fromEntries(wanted),
    'content-type': type,
    'content-length': bytes.length,
  };
  await asking.text({ method: 'PUT', address, headers, body: bytes, signal });
  return link;
};
