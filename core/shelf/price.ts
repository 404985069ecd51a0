/** A price as it is kept: figures, and a dot before its cents. */
export const isPrice = (price: string): boolean => /^\d{1,9}(\.\d{2,3})?$/.test(price);

let currencies: ReadonlySet<string> | null = null;

/** Whether it is the code of money that is in use somewhere (ISO 4217): "GBP". */
export const isCurrency = (code: string): boolean => {
  currencies ??= new Set(Intl.supportedValuesOf('currency'));
  return currencies.has(code);
};

const signs: Readonly<Record<string, string>> = { '£': 'GBP', '€': 'EUR', $: 'USD', zł: 'PLN' };

const own: Readonly<Record<string, string>> = {
  GB: 'GBP',
  US: 'USD',
  CH: 'CHF',
  LI: 'CHF',
  PL: 'PLN',
  CZ: 'CZK',
  DK: 'DKK',
  SE: 'SEK',
  NO: 'NOK',
  HU: 'HUF',
  RO: 'RON',
  CA: 'CAD',
  AU: 'AUD',
  NZ: 'NZD',
  BR: 'BRL',
  MX: 'MXN',
};

/** With what one pays in a country, as a proposal: "GB" → "GBP". */
export const currencyOf = (country: string): string => own[country] ?? 'EUR';

const figuresOf = (typed: string): string | null => {
  const text = typed.replace(/[\s\u00a0\u202f'’]/g, '');
  if (!/^\d[\d.,]*$/.test(text)) return null;
  // What stands before the last one or two figures are cents; any other mark parts thousands.
  const [, whole = text, cents = ''] = /^(.*?)[.,](\d{1,2})$/.exec(text) ?? [];
  if (!/^(\d+|\d{1,3}([.,]\d{3})+)$/.test(whole)) return null;
  const units = whole.replace(/[.,]/g, '').replace(/^0+(?=\d)/, '');
  return cents ? `${units}.${cents.padEnd(2, '0')}` : units;
};

/**
 * What somebody typed as a price: "£24.50" → 24.50 GBP, "1.299,00 €" → 1299.00 EUR, "12" → 12 of `otherwise`; '' stays.
 * Null for what is none.
 */
export const priceFrom = (
  typed: string,
  otherwise: string,
): { price: string; currency: string } | null => {
  const text = typed.trim();
  if (text === '') return { price: '', currency: '' };
  const [, before = '', figures = '', after = ''] =
    /^([^\d\s]*)\s*(\d[^a-z£€$]*?)\s*([a-z£€$ł]*)$/i.exec(text) ?? [];
  const price = figuresOf(figures);
  if (price === null || !isPrice(price) || (before && after)) return null;
  const sign = (before || after).toLowerCase();
  const currency = sign ? (signs[sign] ?? sign.toUpperCase()) : otherwise;
  return isCurrency(currency) ? { price, currency } : null;
};

/** A price as it is read in a language: "24.50", "GBP" → "£24.50". */
export const priceInWords = (price: string, currency: string, language: string): string =>
  price === ''
    ? ''
    : new Intl.NumberFormat(language === 'en' ? 'en-GB' : language, {
        style: 'currency',
        currency,
        trailingZeroDisplay: 'stripIfInteger',
      } as Intl.NumberFormatOptions).format(Number(price));
