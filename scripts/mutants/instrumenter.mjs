import { Instrumenter } from '@stryker-mutator/instrumenter';

const quiet = () => undefined;
const logger = {
  isTraceEnabled: () => false,
  isDebugEnabled: () => false,
  isInfoEnabled: () => false,
  isWarnEnabled: () => false,
  isErrorEnabled: () => false,
  isFatalEnabled: () => false,
  trace: quiet,
  debug: quiet,
  info: quiet,
  warn: quiet,
  error: quiet,
  fatal: quiet,
};

/** Puts switches for faults into sources: conditions turned, operators swapped, blocks emptied. */
export async function createInstrumenter() {
  const instrumenter = new Instrumenter(logger);
  return (files) =>
    instrumenter.instrument(files, {
      ignorers: [],
      excludedMutations: [],
      plugins: null,
      noHeader: false,
    });
}
