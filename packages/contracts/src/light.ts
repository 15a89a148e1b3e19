/** What a page needs before anybody writes anything: no rules, and nothing that reads them. */
export { DEFAULT_PERSON_ID } from './default-person.js';
export { inNamesOfToday } from './former-names.js';
