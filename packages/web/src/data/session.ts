import { v7 as newId } from 'uuid';

/** One opening of the page: a reload begins another, and what was isolated before it is asked for again. */
export const SESSION = newId();
