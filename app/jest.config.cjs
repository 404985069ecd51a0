module.exports = {
  displayName: 'app',
  preset: 'jest-expo',
  rootDir: __dirname,
  roots: ['<rootDir>/src'],
  setupFilesAfterEnv: ['<rootDir>/test-kit/speak.ts'],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  // Icons come as ES modules only.
  transform: { '\\.mjs$': 'babel-jest' },
  transformIgnorePatterns: [],
};
