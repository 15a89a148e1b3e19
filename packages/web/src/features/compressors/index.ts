export { CompressorsPage } from './CompressorsPage.js';

/** Most of what a unit’s own page is made of, which the list needs nothing of: it comes when somebody goes there. */
export const addCompressor = () =>
  import('./AddCompressor.js').then(({ AddCompressor }) => ({ Component: AddCompressor }));
