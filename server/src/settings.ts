import { z } from 'zod';

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
  /** True behind a proxy that sets X-Forwarded-*: then its word on addresses is taken. */
  trustProxy: z.boolean().default(false),
  /** Where the built app and panel lie. */
  appDir: z.string().default('app/dist'),
  widgetDir: z.string().default('widget/dist'),
  logLevel: z.enum(['silent', 'error', 'warn', 'info']).default('info'),
  limits: z
    .object({
      visitorMessagesAMinute: z.number().positive().default(30),
      newVisitorsAnHour: z.number().positive().default(60),
      uploadsAnHour: z.number().positive().default(60),
      linksAnHour: z.number().positive().default(60),
    })
    .prefault({}),
  /** Work factors of argon2id; the default is OWASP's second choice (19 MiB, two passes). */
  passwordCost: z
    .object({ memoryKib: z.number().int().default(19_456), passes: z.number().int().default(2) })
    .prefault({}),
});

export type Settings = Readonly<z.infer<typeof SettingsSchema>>;
export type SettingsInput = z.input<typeof SettingsSchema>;

/** Checks settings and fills in what is not said. Throws a ZodError that names the wrong one. */
export const toSettings = (input: SettingsInput = {}): Settings =>
  Object.freeze(SettingsSchema.parse(input));

/** Settings from the environment: PORT, HOST, DATA_DIR, PUBLIC_ORIGIN, TRUST_PROXY, LOG_LEVEL. */
export const fromEnvironment = (env: NodeJS.ProcessEnv): SettingsInput => ({
  port: env.PORT as unknown as number | undefined,
  host: env.HOST,
  dataDir: env.DATA_DIR,
  publicOrigin: env.PUBLIC_ORIGIN,
  trustProxy: env.TRUST_PROXY === '1',
  logLevel: env.LOG_LEVEL as SettingsInput['logLevel'],
});
