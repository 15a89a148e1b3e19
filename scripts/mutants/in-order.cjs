/* eslint-disable @typescript-eslint/no-require-imports -- the runner takes its order from a module of the old kind */
/* global module, require */
const Sequencer = require('@jest/test-sequencer').default;

/** Tests in the order in which they are named. */
module.exports = class InOrder extends Sequencer {
  sort(tests) {
    const named = process.argv;
    return [...tests].sort((a, b) => named.indexOf(a.path) - named.indexOf(b.path));
  }
};
