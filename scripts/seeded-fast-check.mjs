import fc from '../node_modules/fast-check/lib/fast-check.js';

/*
 * Properties are tried on the same draws every time, so that a run that held holds again; other draws are looked for
 * on purpose: `ENTRETIEN_SEED=7 npm test`.
 */
fc.configureGlobal({ seed: Number(process.env.ENTRETIEN_SEED ?? 20_261_128) });

export default fc;
export * from '../node_modules/fast-check/lib/fast-check.js';
