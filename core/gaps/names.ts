/** What a gap can be filled with from what is known; their names as they are written in English. */
export const gapNames = [
  'first name',
  'business',
  'my name',
  'next opening',
  'usual answer time',
  'page',
] as const;
export type GapName = (typeof gapNames)[number];

/** What the same gaps are called by whoever writes in another language. */
const alsoCalled: Readonly<Record<GapName, readonly string[]>> = {
  'first name': [
    'name',
    'firstname',
    'vorname',
    'prénom',
    'nombre',
    'nome',
    'voornaam',
    'imię',
    'primeiro nome',
  ],
  business: [
    'company',
    'shop',
    'betrieb',
    'firma',
    'entreprise',
    'negocio',
    'empresa',
    'azienda',
    'bedrijf',
  ],
  'my name': [
    'mein name',
    'mon nom',
    'mi nombre',
    'meu nome',
    'il mio nome',
    'mijn naam',
    'moje imię',
  ],
  'next opening': [
    'opening',
    'nächste öffnung',
    'prochaine ouverture',
    'próxima apertura',
    'próxima abertura',
    'prossima apertura',
    'volgende opening',
    'następne otwarcie',
  ],
  'usual answer time': [
    'answer time',
    'übliche antwortzeit',
    'délai de réponse habituel',
    'tiempo de respuesta habitual',
    'tempo de resposta habitual',
    'tempo di risposta abituale',
    'gebruikelijke antwoordtijd',
    'zwykły czas odpowiedzi',
  ],
  page: ['seite', 'página', 'pagina', 'strona'],
};

const byName = new Map<string, GapName>(
  gapNames.flatMap((name) =>
    [name, ...alsoCalled[name]].map((called): [string, GapName] => [called, name]),
  ),
);

/** Which gap is meant by a name, in any of the languages; null: none that is known. " Vorname " → 'first name'. */
export const gapCalled = (name: string): GapName | null =>
  byName.get(name.trim().replace(/\s+/g, ' ').toLowerCase().normalize('NFC')) ?? null;
