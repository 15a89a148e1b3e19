/** Unit tests (core, contracts) and server tests: two projects so that the counts can be told apart. */
const shared = {
  testEnvironment: 'node',
  extensionsToTreatAsEsm: ['.ts'],
  transform: {
    '^.+\\.ts$': [
      '@swc/jest',
      {
        jsc: {
          target: 'es2022',
          parser: { syntax: 'typescript', decorators: true },
          transform: { legacyDecorator: true, decoratorMetadata: true },
        },
        module: { type: 'es6' },
      },
    ],
  },
  moduleNameMapper: {
    '^@entretien/core/(.*)$': '<rootDir>/packages/core/src/$1/index.ts',
    '^@entretien/(contracts|server)$': '<rootDir>/packages/$1/src/index.ts',
    '^(\\.{1,2}/.*)\\.js$': '$1',
  },
};

/** A busy disk makes a test that writes wait: this bound ends what hangs, it measures nothing. */
const testTimeout = 60_000;

export default {
  testTimeout,
  projects: [
    {
      ...shared,
      displayName: 'unit',
      testMatch: [
        '<rootDir>/packages/core/src/**/*.test.ts',
        '<rootDir>/packages/contracts/src/**/*.test.ts',
        '<rootDir>/packages/web/src/**/*.test.ts',
        '<rootDir>/scripts/**/*.test.ts',
      ],
    },
    {
      ...shared,
      displayName: 'server',
      testMatch: ['<rootDir>/packages/server/src/**/*.test.ts', '<rootDir>/packages/demo/src/**/*.test.ts'],
    },
  ],
};
