function swc(parser, transform) {
  return ['@swc/jest', { jsc: { target: 'es2022', parser, transform }, module: { type: 'es6' } }];
}

/** Unit, component and server tests: projects of their own, run in one call on all cores. */
const shared = {
  testEnvironment: 'node',
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: {
    '^.+\\.ts$': swc(
      { syntax: 'typescript', decorators: true },
      { legacyDecorator: true, decoratorMetadata: true },
    ),
    '^.+\\.tsx$': swc({ syntax: 'typescript', tsx: true }, { react: { runtime: 'automatic' } }),
  },
  moduleNameMapper: {
    '^@entretien/core/(.*)$': '<rootDir>/packages/core/src/$1/index.ts',
    '^@entretien/contracts/light$': '<rootDir>/packages/contracts/src/light.ts',
    '^@entretien/(contracts|server|standins)$': '<rootDir>/packages/$1/src/index.ts',
    '^fast-check$': '<rootDir>/scripts/seeded-fast-check.mjs',
    '^(\\.{1,2}/.*)\\.js$': '$1',
  },
};

/** A busy disk makes a test that writes wait: this bound ends what hangs, it measures nothing. */
const testTimeout = 120_000;

export default {
  testTimeout,
  // What a worker has loaded for earlier files is never let go of: grown large, it takes three times as long for each.
  workerIdleMemoryLimit: '600MB',
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
      displayName: 'component',
      testEnvironment: '<rootDir>/packages/web/testing/environment.mjs',
      setupFiles: ['<rootDir>/packages/web/testing/browser.mjs'],
      testMatch: ['<rootDir>/packages/web/src/**/*.test.tsx'],
    },
    {
      ...shared,
      displayName: 'server',
      testMatch: [
        '<rootDir>/packages/server/src/**/*.test.ts',
        '<rootDir>/packages/demo/src/**/*.test.ts',
        '<rootDir>/packages/standins/src/**/*.test.ts',
      ],
    },
  ],
};
