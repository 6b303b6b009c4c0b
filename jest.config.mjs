/** Unit tests run in ES module mode: d3 and other parts ship nothing else. */
export default {
  testEnvironment: 'node',
  // the judging thread and the database client stay on globalThis from test to test
  testEnvironmentOptions: { globalsCleanup: 'off' },
  maxWorkers: '100%',
  testSequencer: '<rootDir>/tests/support/longestFirst.mjs',
  // a machine may be busy: no test is about time
  testTimeout: 60_000,
  globalSetup: '<rootDir>/tests/support/bundleThreads.mjs',
  testMatch: [
    '<rootDir>/src/**/*.test.{ts,tsx}',
    '<rootDir>/bin/**/*.test.ts',
    '<rootDir>/tests/unit/**/*.test.ts',
  ],
  transform: {
    '^.+\\.tsx?$': [
      '<rootDir>/tests/support/quickGlobals.mjs',
      {
        module: { type: 'es6' },
        jsc: {
          target: 'es2022',
          parser: { syntax: 'typescript', tsx: true },
          transform: { react: { runtime: 'automatic' } },
        },
      },
    ],
  },
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
  modulePathIgnorePatterns: ['<rootDir>/.next', '<rootDir>/dist'],
};
