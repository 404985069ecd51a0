/** Which workspace may import from which: the table in docs/architecture.md, as rules. */
const mayImport = {
  core: [],
  contract: ['core'],
  client: ['core', 'contract'],
  server: ['core', 'contract'],
  app: ['core', 'contract', 'client'],
  widget: ['core', 'contract', 'client'],
  street: ['contract'],
};
const workspaces = [
  'core',
  'contract',
  'client',
  'server',
  'app',
  'widget',
  'street',
  'demo',
  'e2e',
  'bench',
];

const oneWay = Object.entries(mayImport).map(([workspace, allowed]) => ({
  name: `${workspace}-imports-one-way`,
  severity: 'error',
  from: { path: `^${workspace}/` },
  to: {
    path: `^(${workspaces.filter((other) => other !== workspace && !allowed.includes(other)).join('|')})/`,
  },
}));

/** The subjects of the app: each may use what those before it offer, and nothing of those after it. */
const subjects = [
  'persons',
  'deeds',
  'writing',
  'shelf',
  'replies',
  'orders',
  'line',
  'search',
  'doors',
  'team',
  'lamp',
  'follow-ups',
  'talk',
  'doorbell',
  'mail',
  'hours',
  'house',
  'dress',
  'entrance',
  'walk',
];

const subjectsInOrder = subjects.map((subject, at) => ({
  name: `${subject}-uses-no-later-subject`,
  severity: 'error',
  from: { path: `^app/src/features/${subject}/` },
  to: { path: `^app/src/features/(?!(${subjects.slice(0, at + 1).join('|')})/)` },
}));

module.exports = {
  forbidden: [
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-touches-nothing-outside',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'sql-only-in-store',
      severity: 'error',
      from: { path: '^server/src/', pathNot: '^server/src/store/|\\.test\\.ts$' },
      to: { path: 'better-sqlite3' },
    },
    {
      name: 'inbox-knows-no-door',
      comment: 'Whoever takes in and answers knows what a door can do, and not which one it is.',
      severity: 'error',
      from: { path: '^server/src/(inbox|live|store|jobs)/', pathNot: '\\.test\\.ts$' },
      to: { path: '^server/src/doors/' },
    },
    {
      name: 'no-door-knows-another',
      severity: 'error',
      from: { path: '^server/src/doors/([^/]+)/' },
      to: { path: '^server/src/doors/[^/]+/', pathNot: '^server/src/doors/$1/' },
    },
    {
      name: 'no-schemas-in-the-browser',
      comment:
        'What crosses the wire is proved on the server; the prover alone weighs 95 kB gzipped.',
      severity: 'error',
      from: { path: '^(app/src|widget/src|client)/', pathNot: '\\.test\\.tsx?$' },
      to: {
        path: '^contract/',
        pathNot: '^contract/(errors|limits)/',
        dependencyTypesNot: ['type-only'],
      },
    },
    {
      name: 'client-draws-nothing',
      severity: 'error',
      from: { path: '^client/' },
      to: { path: 'node_modules/(react|preact|expo|@tanstack)' },
    },
    {
      name: 'kit-knows-no-data',
      severity: 'error',
      from: { path: '^app/src/kit/' },
      to: { path: '^(app/src/(shell|features|app)|contract|client)/' },
    },
    {
      name: 'shell-knows-no-subject',
      severity: 'error',
      from: { path: '^app/src/shell/' },
      to: { path: '^app/src/(features|app)/' },
    },
    {
      name: 'subjects-know-no-place',
      severity: 'error',
      from: { path: '^app/src/features/' },
      to: { path: '^app/src/app/' },
    },
    {
      name: 'screens-and-words-are-a-subjects-own',
      comment: 'What a subject offers to others stands in its parts and its data.',
      severity: 'error',
      from: { path: '^app/src/features/([^/]+)/' },
      to: { path: '^app/src/features/[^/]+/(screens|words)/', pathNot: '^app/src/features/$1/' },
    },
    {
      name: 'only-data-asks-the-server',
      severity: 'error',
      from: {
        path: '^app/src/(features/[^/]+/(screens|parts|words)|kit|app)/',
      },
      to: { path: '^app/src/shell/session/api\\.ts$' },
    },
    {
      name: 'nothing-unresolved',
      severity: 'error',
      from: {},
      to: { couldNotResolve: true, pathNot: '^expo-router/entry$' },
    },
    ...oneWay,
    ...subjectsInOrder,
    {
      name: 'every-subject-has-its-place-in-the-order',
      severity: 'error',
      from: { path: `^app/src/features/(?!(${subjects.join('|')})/)` },
      to: {},
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|node_modules/\\.cache)/' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
      extensions: ['.ts', '.tsx', '.web.ts', '.web.tsx', '.js', '.mjs', '.cjs', '.json', '.sql'],
    },
  },
};
