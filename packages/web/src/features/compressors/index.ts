export { CompressorsPage } from './CompressorsPage.js';
export { AddCompressor } from './AddCompressor.js';
