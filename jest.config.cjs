const swc = [
  '@swc/jest',
  {
    jsc: {
      parser: { syntax: 'typescript', tsx: true },
      transform: { react: { runtime: 'automatic', importSource: 'preact' } },
      target: 'es2022',
    },
    module: { type: 'commonjs' },
  },
];

const workspace = (name, environment) => ({
  displayName: name,
  rootDir: __dirname,
  roots: [`<rootDir>/${name}`],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  testEnvironment: environment,
  resolver: '<rootDir>/scripts/resolve-modules.cjs',
  transform: { '\\.(m?[jt]sx?)$': swc, '\\.sql$': '<rootDir>/scripts/sql-as-text.cjs' },
  // Several packages ship ES modules only; Jest runs CommonJS, so they are transformed as well.
  transformIgnorePatterns: ['node_modules/(better-sqlite3|sharp|@node-rs)/'],
});

module.exports = {
  // Generous: a shared machine may stand still for a while, and a stall is no failure.
  testTimeout: 30_000,
  projects: [
    workspace('core', 'node'),
    workspace('contract', 'node'),
    workspace('client', 'jsdom'),
    workspace('server', 'node'),
    workspace('street', 'node'),
    workspace('demo', 'node'),
    workspace('bench', 'node'),
    workspace('widget', 'jsdom'),
    '<rootDir>/app/jest.config.cjs',
  ],
};
