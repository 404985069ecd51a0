/**
 * A mail address as a link to write to it and to nobody else: what stands behind a `?` would be taken for further
 * addressees (RFC 6068, 2). "a@b.example?bcc=c" is one odd address.
 */
export const mailAddress = (address: string): string =>
  `mailto:${encodeURIComponent(address).replaceAll('%40', '@')}`;
