import { isIPv6 } from 'node:net';

/** Of an IPv6 address what a provider gives to one customer (RFC 6177): whoever has it has all in it. */
const GIVEN_GROUPS = 4;

/**
 * By which name an address is counted. "203.0.113.9" stays; "2001:db8:1:2:3:4:5:6" → "2001:db8:1:2::/64";
 * an IPv4 address in IPv6 form ("::ffff:203.0.113.9") is the IPv4 address.
 */
export const addressKey = (address: string): string => {
  const mapped = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(address)?.[1];
  if (mapped) return mapped;
  if (!isIPv6(address)) return address;
  const [head = '', tail = ''] = address.split('::');
  const front = head.split(':').filter(Boolean);
  const back = tail.split(':').filter(Boolean);
  const middle = address.includes('::') ? Array(8 - front.length - back.length).fill('0') : [];
  const groups = [...front, ...middle, ...back].slice(0, GIVEN_GROUPS);
  return `${groups.map((group) => Number.parseInt(group, 16).toString(16)).join(':')}::/64`;
};
