module.exports = {
  displayName: 'app',
  preset: 'jest-expo',
  rootDir: __dirname,
  roots: ['<rootDir>/src'],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  transformIgnorePatterns: [],
};
