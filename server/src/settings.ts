import ipaddr from 'ipaddr.js';
import { z } from 'zod';

/** Addresses of proxies that can be meant: one, or a range; all there are would believe whoever says so. */
const isSomeProxies = (text: string): boolean => {
  if (ipaddr.isValid(text)) return true;
  return ipaddr.isValidCIDR(text) && ipaddr.parseCIDR(text)[1] > 0;
};

/** Everything that is decided where the program is started, read once. */
const SettingsSchema = z.object({
  port: z.coerce.number().int().min(0).max(65_535).default(4860),
  host: z.string().default('127.0.0.1'),
  /** Holds `porch.sqlite`, the business's one file. */
  dataDir: z.string().default('.data'),
  /** Where people reach us, as in `https://porch.example`; stands in the snippet and the links. */
  publicOrigin: z
    .string()
    .regex(/^https?:\/\/[^/]+$/)
    .optional(),
  /**
   * Whose word on addresses (X-Forwarded-*) is taken: of so many proxies in a row, counted from ours, or of those
   * with these addresses. Never of whoever says so: the leftmost address is the client's own claim.
   */
  trustProxy: z
    .union([
      z.literal(false),
      z.number().int().min(1).max(10),
      z.array(z.string().refine(isSomeProxies)).min(1).max(50),
    ])
    .default(false),
  /** Origins that pushes may go to though they are not on the open internet: a push service beside us. */
  pushNear: z.array(z.string().regex(/^https?:\/\/[^/]+$/)).default([]),
  /** Origins that bridges and networks may be at though they are not on the open internet: a bridge beside us. */
  networksNear: z.array(z.string().regex(/^(https?|xmpp):\/\/[^/]+$/)).default([]),
  /**
   * Origins that count as the open internet for addresses that anybody writes: the simulated world around a demo. Never
   * set for a real house: a stranger's mail could have anything on such an origin asked for.
   */
  worldNear: z.array(z.string().regex(/^https?:\/\/[^/]+$/)).default([]),
  /** Whether doors to the made-up networks of the simulated street are offered: for the demo, and for trying. */
  withStreet: z.boolean().default(false),
  /** On which port of its own the house takes mail; absent: on none. */
  mailPort: z.coerce.number().int().min(0).max(65_535).optional(),
  /** Where the built app and panel lie. */
  appDir: z.string().default('app/dist'),
  widgetDir: z.string().default('widget/dist'),
  /** A picture that takes longer to open is given up. */
  pictureLongestMs: z.number().positive().default(20_000),
  /** A mail that takes longer to read is noted as one that cannot be read. */
  mailLongestMs: z.number().positive().default(15_000),
  /** How long the first 64 kB of a request's body may take; more may take longer, at 16 kB a second. */
  bodyLongestMs: z.number().positive().default(15_000),
  logLevel: z.enum(['silent', 'error', 'warn', 'info']).default('info'),
  limits: z
    .object({
      visitorMessagesAMinute: z.number().positive().default(30),
      newVisitorsAnHour: z.number().positive().default(60),
      uploadsAnHour: z.number().positive().default(60),
      linksAnHour: z.number().positive().default(60),
      /** How often an address may read calendars. */
      feedsAMinute: z.number().positive().default(60),
      /** How often a network's address may hand something over. */
      networksAMinute: z.number().positive().default(6_000),
      /** How often somebody may let their devices ring to see whether they do. */
      trialRingsAMinute: z.number().positive().default(12),
      /** How often an address may hand over a mail. */
      mailsAMinute: z.number().positive().default(60),
      /** How often an address is told by mail why its answer was not passed on. */
      refusalsAnHour: z.number().positive().default(3),
      /** More words a minute than these no panel and no device of ours says over one socket. */
      panelWordsAMinute: z.number().positive().default(240),
      deviceWordsAMinute: z.number().positive().default(600),
      /** What a panel says by itself: how far it has read, where its visitor goes, that they type. */
      visitorHintsAMinute: z.number().positive().default(90),
      /** By address, as many visitors may stand behind one. */
      hellosAMinute: z.number().positive().default(600),
      lettersAMinute: z.number().positive().default(600),
      connectionsOfAnAddress: z.number().positive().default(200),
      /** Wrong or right, from devices that never signed in; more of them are slowed down. */
      strangersTriesAnHour: z.number().positive().default(10),
      firstCodeTriesAMinute: z.number().positive().default(10),
    })
    .prefault({}),
  /** Work factors of argon2id; the default is OWASP's second choice (19 MiB, two passes). */
  passwordCost: z
    .object({ memoryKib: z.number().int().default(19_456), passes: z.number().int().default(2) })
    .prefault({}),
});

export type Settings = Readonly<z.infer<typeof SettingsSchema>>;
export type SettingsInput = z.input<typeof SettingsSchema>;

/** By which variable each setting comes. */
const variables: Readonly<Record<string, string>> = {
  port: 'PORT',
  host: 'HOST',
  dataDir: 'DATA_DIR',
  publicOrigin: 'PUBLIC_ORIGIN',
  trustProxy: 'TRUST_PROXY',
  mailPort: 'MAIL_PORT',
  networksNear: 'NETWORKS_NEAR',
  pushNear: 'PUSH_NEAR',
  worldNear: 'DEMO_WORLD_NEAR',
  withStreet: 'WITH_STREET',
  appDir: 'APP_DIR',
  widgetDir: 'WIDGET_DIR',
  logLevel: 'LOG_LEVEL',
  limits: 'CONNECTIONS_OF_AN_ADDRESS',
};

/** What is wrong with settings, in a line each, by the variables that are to be set otherwise. */
export const settingsProblem = (error: unknown): string => {
  if (!(error instanceof z.ZodError)) return error instanceof Error ? error.message : String(error);
  const wrong = new Set(
    error.issues.map(({ path }) => variables[String(path[0])] ?? String(path[0])),
  );
  return [...wrong]
    .map((name) => `${name} can’t be used as it is set. See docs/deploying.md for what it may be.`)
    .join('\n');
};

/** Checks settings and fills in what is not said. Throws a ZodError that names the wrong one. */
export const toSettings = (input: SettingsInput = {}): Settings =>
  Object.freeze(SettingsSchema.parse(input));

/** TRUST_PROXY as it is set: nothing or 0, a number of proxies, or addresses with commas between. */
const toTrust = (said: string | undefined): SettingsInput['trustProxy'] => {
  const text = said?.trim() ?? '';
  if (text === '' || text === '0') return false;
  if (/^\d+$/.test(text)) return Number(text);
  return text.split(',').map((one) => one.trim());
};

const listIn = (said: string | undefined): string[] | undefined =>
  said ? said.split(',').map((one) => one.trim()) : undefined;

/** Settings from the environment: see docs/deploying.md. */
export const fromEnvironment = (env: NodeJS.ProcessEnv): SettingsInput => ({
  port: env.PORT as unknown as number | undefined,
  host: env.HOST,
  dataDir: env.DATA_DIR,
  publicOrigin: env.PUBLIC_ORIGIN,
  appDir: env.APP_DIR,
  widgetDir: env.WIDGET_DIR,
  trustProxy: toTrust(env.TRUST_PROXY),
  mailPort: env.MAIL_PORT ? Number(env.MAIL_PORT) : undefined,
  networksNear: listIn(env.NETWORKS_NEAR),
  pushNear: listIn(env.PUSH_NEAR),
  worldNear: listIn(env.DEMO_WORLD_NEAR),
  withStreet: env.WITH_STREET === '1',
  logLevel: env.LOG_LEVEL as SettingsInput['logLevel'],
  limits: env.CONNECTIONS_OF_AN_ADDRESS
    ? { connectionsOfAnAddress: Number(env.CONNECTIONS_OF_AN_ADDRESS) }
    : undefined,
});
