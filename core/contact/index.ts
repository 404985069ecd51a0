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
