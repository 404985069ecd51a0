/** What became of one recipient of a mail, as the server says that carried it (RFC 3464, 2.3). */
export interface DeliveryStatus {
  /** In small letters, without what kind of address it is. */
  recipient: string;
  action: 'failed' | 'delayed' | 'delivered' | 'relayed' | 'expanded' | 'other';
  /** Class, subject and detail (RFC 3463): "5.1.1". */
  status: string;
}

/** Why a mail did not arrive, as it is said to people. */
export const bounceReasons = [
  'no-mailbox',
  'mailbox-full',
  'too-large-there',
  'refused-there',
  'unreachable-there',
  'not-said',
] as const;
export type BounceReason = (typeof bounceReasons)[number];

const actions = ['failed', 'delayed', 'delivered', 'relayed', 'expanded'] as const;

/** Fields of one group, by name in small letters; a line that begins with a space goes on with the one before. */
const fieldsOf = (group: string): ReadonlyMap<string, string> => {
  const lines = group.replace(/\n[ \t]+/g, ' ').split('\n');
  return new Map(
    lines.flatMap((line) => {
      const colon = line.indexOf(':');
      return colon < 1
        ? []
        : [[line.slice(0, colon).trim().toLowerCase(), line.slice(colon + 1).trim()] as const];
    }),
  );
};

/** "rfc822; Louisl@Larry.slip.umd.edu" → "louisl@larry.slip.umd.edu" */
const addressOf = (field: string): string =>
  field
    .replace(/^[^;]*;/, '')
    .replace(/^\s*<|>\s*$/g, '')
    .trim()
    .toLowerCase();

/** The recipients that a message/delivery-status speaks of: groups of fields, the first of them about the mail as a whole. */
export const readDeliveryStatus = (text: string): DeliveryStatus[] =>
  text
    .replace(/\r\n?/g, '\n')
    .split(/\n[ \t]*\n/)
    .flatMap((group) => {
      const fields = fieldsOf(group);
      const recipient = fields.get('final-recipient') ?? fields.get('original-recipient');
      if (recipient === undefined) return [];
      const said = (fields.get('action') ?? '').toLowerCase();
      const status = /\d\.\d{1,3}\.\d{1,3}/.exec(fields.get('status') ?? '')?.[0] ?? '';
      const action = actions.find((one) => said.startsWith(one)) ?? 'other';
      return [{ recipient: addressOf(recipient), action, status }];
    });

/** Why a mail did not arrive, from its status (RFC 3463, 3.1 to 3.8). */
export const bounceReason = (status: string): BounceReason => {
  const [, subject = '', detail = ''] = status.split('.');
  if (subject === '1') return 'no-mailbox';
  if (subject === '2') {
    if (detail === '2') return 'mailbox-full';
    if (detail === '3') return 'too-large-there';
    return detail === '1' ? 'refused-there' : 'no-mailbox';
  }
  if (subject === '3') return detail === '4' ? 'too-large-there' : 'unreachable-there';
  if (subject === '4') return 'unreachable-there';
  return subject === '7' || subject === '5' || subject === '6' ? 'refused-there' : 'not-said';
};
