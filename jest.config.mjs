/** Unit tests run in ES module mode: d3 and other parts ship nothing else. */
export default {
  testEnvironment: 'node',
  maxWorkers: '100%',
  testMatch: ['<rootDir>/src/**/*.test.{ts,tsx}', '<rootDir>/bin/**/*.test.ts', '<rootDir>/tests/unit/**/*.test.ts'],
  transform: {
    '^.+\\.tsx?$': ['<rootDir>/tests/support/quickGlobals.mjs', { module: { type: 'es6' }, jsc: { target: 'es2022', parser: { syntax: 'typescript', tsx: true }, transform: { react: { runtime: 'automatic' } } } }],
  },
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
  modulePathIgnorePatterns: ['<rootDir>/.next', '<rootDir>/dist'],
};
