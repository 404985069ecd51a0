/** Which room may import from which: the table in docs/architecture.md, as rules. */
const mayImport = {
  core: [],
  contract: ['core'],
  server: ['core', 'contract'],
  app: ['core', 'contract'],
  widget: ['core', 'contract'],
  street: ['contract'],
};
const rooms = ['core', 'contract', 'server', 'app', 'widget', 'street', 'demo', 'e2e', 'bench'];

const oneWay = Object.entries(mayImport).map(([room, allowed]) => ({
  name: `${room}-imports-one-way`,
  severity: 'error',
  from: { path: `^${room}/` },
  to: {
    path: `^(${rooms.filter((other) => other !== room && !allowed.includes(other)).join('|')})/`,
  },
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
      from: { path: '^(app|widget)/src/', pathNot: '\\.test\\.tsx?$' },
      to: {
        path: '^contract/(team|visitor|entries|dress)/',
        dependencyTypesNot: ['type-only'],
      },
    },
    {
      name: 'nothing-unresolved',
      severity: 'error',
      from: {},
      to: { couldNotResolve: true, pathNot: '^expo-router/entry$' },
    },
    ...oneWay,
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
