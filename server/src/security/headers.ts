/** Content security policies of our pages: nothing from elsewhere, nothing inline. */
const policy = (parts: Record<string, string>): string =>
  Object.entries(parts)
    .map(([name, sources]) => `${name} ${sources}`)
    .join('; ');

const own = {
  'default-src': "'none'",
  'script-src': "'self'",
  'connect-src': "'self'",
  'font-src': "'self'",
  'base-uri': "'none'",
  'form-action': "'self'",
};

/** The hash of nothing: the app makes an empty style element and fills it by script. */
const emptyStyle = "'sha256-47DEQpj8HBSa+/TImW+5JCeuQeRkm5NMpJWZG3hSuFU='";

/** The owner's app. */
export const appPolicy = (): string =>
  policy({
    ...own,
    'style-src': `'self' ${emptyStyle}`,
    'img-src': "'self' blob: data:",
    'media-src': "'self'",
    'manifest-src': "'self'",
    'worker-src': "'self'",
    'frame-src': "'self'",
    'frame-ancestors': "'none'",
  });

/** The visitor's panel; `ancestors` are the websites on which it may stand. */
export const panelPolicy = (ancestors: string): string =>
  policy({
    ...own,
    'style-src': "'self'",
    'img-src': "'self' blob:",
    // The picker of emoji, and nothing else.
    'frame-src': "'self'",
    'frame-ancestors': ancestors,
  });

/**
 * The picker of emoji, in a frame of its own: it draws itself by style attributes, which nothing else of the house may.
 * Nothing that anybody wrote is ever on it.
 */
export const emojiPolicy = (ancestors: string): string =>
  policy({
    ...own,
    'style-src': "'self' 'unsafe-inline'",
    'img-src': "'self'",
    'frame-ancestors': ancestors,
  });

/** The imaginary website of the dressing room, in a frame of the app. */
export const previewPolicy = (): string =>
  policy({
    ...own,
    'style-src': "'self'",
    'img-src': "'self'",
    'frame-src': "'self'",
    'frame-ancestors': "'self'",
  });

/** Pages to read, for whoever looks after a website or a shop. */
export const readingPolicy = (): string =>
  policy({
    'default-src': "'none'",
    'style-src': "'self'",
    'font-src': "'self'",
    'img-src': "'self'",
    'base-uri': "'none'",
    'form-action': "'none'",
    'frame-ancestors': "'none'",
  });

/** Nothing at all, in no frame: what every answer gets that does not say what else it needs. */
const strictest = policy({
  'default-src': "'none'",
  'base-uri': "'none'",
  'form-action': "'none'",
  'frame-ancestors': "'none'",
});

/**
 * For pages that may stand in a frame of a website that lets nothing in which does not say that it may come
 * (Cross-Origin-Embedder-Policy, HTML standard, 7.1.4).
 */
export const framed: Record<string, string> = {
  'cross-origin-embedder-policy': 'require-corp',
  'cross-origin-resource-policy': 'cross-origin',
};

/** On every answer of a house that is reached over TLS (RFC 6797): it is not asked for without for half a year. */
export const overTls: Record<string, string> = {
  'strict-transport-security': `max-age=${182 * 24 * 3_600}`,
};

/** On every answer; where one says something else it says why. */
export const everywhere: Record<string, string> = {
  'content-security-policy': strictest,
  'cross-origin-resource-policy': 'same-origin',
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'strict-origin-when-cross-origin',
  'cross-origin-opener-policy': 'same-origin',
  'permissions-policy': 'geolocation=(), microphone=()',
};
