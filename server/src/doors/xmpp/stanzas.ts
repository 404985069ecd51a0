import { createHash } from 'node:crypto';
import { type Element, xml } from '@xmpp/client';
import { JobFailed } from '../../jobs/worker';
import { newId } from '../../security/tokens';
import { joinedWords, kindInWords, placeInWords } from '../parts-in-words';
import type { Heard } from '../registry';
import { bareOf, domainOf, isOfServer, personOf } from './addresses';

/** The namespaces of the XMPP Standards Foundation's extensions, by what they are for. */
export const ns = {
  archive: 'urn:xmpp:mam:2',
  attention: 'urn:xmpp:chat-markers:0',
  chatStates: 'http://jabber.org/protocol/chatstates',
  correct: 'urn:xmpp:message-correct:0',
  delay: 'urn:xmpp:delay',
  disco: 'http://jabber.org/protocol/disco#info',
  discoItems: 'http://jabber.org/protocol/disco#items',
  encrypted: 'urn:xmpp:eme:0',
  file: 'jabber:x:oob',
  forward: 'urn:xmpp:forward:0',
  ids: 'urn:xmpp:sid:0',
  nick: 'http://jabber.org/protocol/nick',
  pages: 'http://jabber.org/protocol/rsm',
  ping: 'urn:xmpp:ping',
  place: 'http://jabber.org/protocol/geoloc',
  reactions: 'urn:xmpp:reactions:0',
  receipts: 'urn:xmpp:receipts',
  stanzas: 'urn:ietf:params:xml:ns:xmpp-stanzas',
  upload: 'urn:xmpp:http:upload:0',
  withdraw: 'urn:xmpp:message-retract:1',
} as const;

/** What no stanza may have in it (XML 1.0, 2.2): one such character would end the whole stream. */
// biome-ignore lint/suspicious/noControlCharactersInRegex: these are what is looked for.
const UNFIT = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|\p{Cs}/gu;

export const fitForXml = (text: string): string => text.replace(UNFIT, '�');

/** A message and how it came. */
export interface Came {
  stanza: Element;
  /** When it was said, where that is known. UTC epoch milliseconds. */
  saidAt: number | undefined;
  /** It just came, and was not read from an archive. */
  isLive: boolean;
  /** What our own server calls it; null: nothing. In what just came others may have written it: it proves nothing. */
  archiveId: string | null;
}

/** The id of a message of somebody: they choose ids, and two people may choose the same. */
const messageId = (from: string, id: string): string =>
  createHash('sha256').update(`${from}\n${id}`).digest('base64url');

const momentIn = (delayed: Element | undefined): number | undefined => {
  const at = Date.parse(delayed?.attrs.stamp ?? '');
  return Number.isFinite(at) && at >= 0 ? at : undefined;
};

/** Of a message as it comes; `own`: whose door it is. */
export const cameLive = (stanza: Element, own: string): Came => {
  const names = stanza.getChildren('stanza-id', ns.ids);
  const ours = names.filter(({ attrs }) => bareOf(attrs.by ?? '') === own);
  return {
    stanza,
    saidAt: momentIn(stanza.getChild('delay', ns.delay)),
    isLive: true,
    archiveId: ours.at(-1)?.attrs.id ?? null,
  };
};

/** Of a message that our own server had kept (XEP-0313); null: it is none, or from somebody else. */
export const cameFromArchive = (
  stanza: Element,
  own: string,
  queryId: string,
): (Came & { archiveId: string }) | null => {
  const { from } = stanza.attrs;
  const result = stanza.getChild('result', ns.archive);
  if (!result || (from !== undefined && bareOf(from) !== own)) return null;
  if (result.attrs.queryid !== queryId) return null;
  const kept = result.getChild('forwarded', ns.forward);
  const message = kept?.getChild('message');
  const { id } = result.attrs;
  if (!kept || !message || !id) return null;
  const saidAt = momentIn(kept.getChild('delay', ns.delay));
  return { stanza: message, saidAt, isLive: false, archiveId: id };
};

const placeIn = (stanza: Element): string => {
  const place = stanza.getChild('geoloc', ns.place);
  const [latitude, longitude] = ['lat', 'lon'].map((name) => Number(place?.getChildText(name)));
  if (!place || !Number.isFinite(latitude) || !Number.isFinite(longitude)) return '';
  return placeInWords(latitude ?? 0, longitude ?? 0, place.getChildText('description') ?? '');
};

/** Namespaces of what is encrypted, by what people call it: XEP-0384 (old and new), XEP-0373, XEP-0027. */
const SEALED: Readonly<Record<string, string>> = {
  'eu.siacs.conversations.axolotl': 'OMEMO',
  'urn:xmpp:omemo:1': 'OMEMO',
  'urn:xmpp:omemo:2': 'OMEMO',
  'urn:xmpp:openpgp:0': 'OpenPGP',
  'jabber:x:encrypted': 'OpenPGP',
};

const insideOf = ({ children }: Element): Element[] =>
  children.filter((one) => typeof one !== 'string');

/**
 * By what a message is encrypted, '' where nobody says; null: it is not. The words beside it are for programs that cannot
 * read it (XEP-0380), and nobody wrote them.
 */
const sealedIn = (stanza: Element): string | null => {
  const told = stanza.getChild('encryption', ns.encrypted);
  const sealed = insideOf(stanza).find(({ attrs }) => Object.hasOwn(SEALED, attrs.xmlns ?? ''));
  if (!told && !sealed) return null;
  return told?.attrs.name ?? SEALED[sealed?.attrs.xmlns ?? told?.attrs.namespace ?? ''] ?? '';
};

/** Keys alone, for a message that comes another time (XEP-0384, 5.8). */
const isKeysOnly = (stanza: Element): boolean => {
  const sealed = insideOf(stanza).find(({ name, attrs }) => {
    return name === 'encrypted' && SEALED[attrs.xmlns ?? ''] === 'OMEMO';
  });
  return sealed !== undefined && !sealed.getChild('payload');
};

/** Something that is no words, as words; '' where it is nothing that somebody would want to know. */
const otherIn = (stanza: Element): string => {
  const place = placeIn(stanza);
  if (place) return place;
  const reactions = stanza.getChild('reactions', ns.reactions)?.getChildren('reaction') ?? [];
  if (reactions.length > 0) {
    return kindInWords('reaction', reactions.map((one) => one.text()).join(' '));
  }
  const sealed = sealedIn(stanza);
  return sealed === null ? '' : kindInWords('encrypted', sealed);
};

/** What went wrong with a message of ours, by our code. */
const failureIn = (stanza: Element): string => {
  const error = stanza.getChild('error');
  const isNobody = ['item-not-found', 'service-unavailable', 'remote-server-not-found'].some(
    (condition) => error?.getChild(condition, ns.stanzas),
  );
  return isNobody ? 'person-unknown' : 'network-refused';
};

const receiptsIn = (stanza: Element): Heard['deliveries'] => {
  const arrived = stanza.getChild('received', ns.receipts)?.attrs.id;
  const read = stanza.getChild('displayed', ns.attention)?.attrs.id;
  return [
    ...(arrived ? [{ networkId: arrived, step: 'arrived' as const }] : []),
    ...(read ? [{ networkId: read, step: 'read' as const }] : []),
  ];
};

/** Files that somebody names, where they are on their own server; others stay links in the text. */
const filesIn = (stanza: Element, domains: readonly string[]): string[] =>
  stanza.getChildren('x', ns.file).flatMap((one) => {
    const link = one.getChildText('url') ?? '';
    return domains.some((domain) => isOfServer(link, domain)) ? [link] : [];
  });

const nameIn = (link: string): string => {
  const last = new URL(link).pathname.split('/').at(-1) ?? '';
  try {
    return decodeURIComponent(last);
  } catch {
    return last;
  }
};

/** Whether a message asks to be told that it has arrived, and of which id. */
export const receiptAsked = (stanza: Element): string | null =>
  stanza.attrs.type !== 'error' && stanza.getChild('request', ns.receipts)
    ? (stanza.attrs.id ?? null)
    : null;

/**
 * What a message says (RFC 6121, with what its extensions say of receipts, typing, files, changes and taking back);
 * `own`: whose door it is, `now`: UTC epoch milliseconds.
 */
export const heardIn = (
  { stanza, saidAt, isLive, archiveId }: Came,
  own: string,
  now: number,
): Heard => {
  const { type = 'normal', id } = stanza.attrs;
  const from = personOf(stanza.attrs.from ?? '');
  if (!from || from === own || !['normal', 'chat', 'error'].includes(type)) return {};
  if (type === 'error') {
    return id ? { deliveries: [{ networkId: id, step: 'failed', why: failureIn(stanza) }] } : {};
  }
  const at = saidAt ?? now;
  const body = sealedIn(stanza) === null ? (stanza.getChildText('body') ?? '') : '';
  // The same change read once more is the same one, whatever time stands with it.
  const change = id ? { id: messageId(from, `${id} ${body}`) } : {};
  const withdrawn = stanza.getChild('retract', ns.withdraw)?.attrs.id;
  if (withdrawn) {
    const networkId = messageId(from, withdrawn);
    return { changes: [{ ...change, networkId, from, text: null, saidAt: at }] };
  }
  const replaced = stanza.getChild('replace', ns.correct)?.attrs.id;
  if (replaced && body) {
    const networkId = messageId(from, replaced);
    return { changes: [{ ...change, networkId, from, text: body, saidAt: at }] };
  }
  const links = filesIn(stanza, [domainOf(from), domainOf(own)]);
  const words = links.includes(body.trim()) ? '' : body;
  const other = isKeysOnly(stanza) ? '' : otherIn(stanza);
  const said = words || links.length > 0 ? words : other;
  const deliveries = receiptsIn(stanza);
  if (!said && links.length === 0) {
    const isTyping = isLive && saidAt === undefined && stanza.getChild('composing', ns.chatStates);
    return { deliveries, typing: isTyping ? [from] : [] };
  }
  return {
    deliveries,
    inbounds: [
      {
        networkId: messageId(from, id ?? archiveId ?? newId()),
        serverId: (archiveId ?? '').slice(0, 200),
        from,
        name: stanza.getChildText('nick', ns.nick)?.trim() || from,
        text: joinedWords(said),
        saidAt,
        files: links.map((link) => ({ address: link, name: nameIn(link) })),
      },
    ],
  };
};

/** A message of ours; asks to be told when it has arrived (XEP-0184) and when it was read (XEP-0333). */
export const messageTo = (to: string, id: string, text: string, link?: string): Element => {
  const person = personOf(to);
  if (!person) throw new JobFailed('person-unknown', true);
  return xml(
    'message',
    { to: person, id, type: 'chat' },
    xml('body', {}, fitForXml(text)),
    ...(link ? [xml('x', { xmlns: ns.file }, xml('url', {}, link))] : []),
    xml('active', { xmlns: ns.chatStates }),
    xml('request', { xmlns: ns.receipts }),
    xml('markable', { xmlns: ns.attention }),
    xml('origin-id', { xmlns: ns.ids, id }),
  );
};

export const receiptTo = (to: string, id: string): Element =>
  xml('message', { to, type: 'chat' }, xml('received', { xmlns: ns.receipts, id }));

export const typingTo = (to: string): Element =>
  xml('message', { to, type: 'chat' }, xml('composing', { xmlns: ns.chatStates }));

/** Whether somebody is in, as everybody sees it who has asked to (RFC 6121, 4.7). */
export const presenceFor = (isIn: boolean): Element =>
  isIn ? xml('presence') : xml('presence', {}, xml('show', {}, 'away'));
