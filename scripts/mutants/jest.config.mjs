/** The core's own tests, in a copy of it. */
export default {
  testEnvironment: 'node',
  extensionsToTreatAsEsm: ['.ts'],
  transform: {
    '^.+\\.ts$': [
      '@swc/jest',
      { jsc: { target: 'es2022', parser: { syntax: 'typescript' } }, module: { type: 'es6' } },
    ],
  },
  moduleNameMapper: {
    '^fast-check$': '<rootDir>/scripts/seeded-fast-check.mjs',
    '^(\\.{1,2}/.*)\\.js$': '$1',
  },
  setupFilesAfterEnv: ['<rootDir>/scripts/mutants/coverage.mjs'],
  testSequencer: '<rootDir>/scripts/mutants/in-order.cjs',
  testTimeout: 60_000,
};
