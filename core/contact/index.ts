import {
  type CountryCode,
  isSupportedCountry,
  parsePhoneNumberFromString,
} from 'libphonenumber-js/min';
import { cleanLine, looksLikeEmail } from '../text';

/**
 * A phone number as people type it → E.164 (ITU-T). Without a country code it belongs to `country`
 * ("GB"). "07700 900123" in GB → "+447700900123"; what cannot be a number there → null.
 */
export const toE164 = (typed: string, country: string): string | null => {
  const home = isSupportedCountry(country) ? (country as CountryCode) : undefined;
  const number = parsePhoneNumberFromString(cleanLine(typed), home);
  return number?.isPossible() ? number.number : null;
};

/**
 * A mail address as people type it → as it is kept: the domain in lower case and ASCII form.
 * "Wren@Post.EXAMPLE" → "Wren@post.example"; what has not the form of one → null.
 */
export const toEmail = (typed: string): string | null => {
  const line = cleanLine(typed);
  const at = line.lastIndexOf('@');
  if (!looksLikeEmail(line)) return null;
  try {
    return `${line.slice(0, at)}@${new URL(`http://${line.slice(at + 1)}`).hostname}`;
  } catch {
    return null;
  }
};

/**
 * By what two mail addresses are compared, and found: providers tell no capitals apart, whatever the standard
 * allows (RFC 5321, 2.4). "Wren@post.example" → "wren@post.example".
 */
export const emailKey = (address: string): string => address.toLowerCase();

/**
 * By what two phone numbers are compared, and found: as E.164, where they can be. "07700 900123" in GB →
 * "+447700900123"; what cannot be a number → as it was said.
 */
export const phoneKey = (said: string, country: string): string => toE164(said, country) ?? said;

/** By what two ways of a kind are compared; those of a network are as the network writes them. */
export const wayKey = (kind: string, address: string, country: string): string => {
  if (kind === 'email') return emailKey(toEmail(address) ?? address);
  return kind === 'phone' ? phoneKey(address, country) : address;
};
