import { AddPerson, type PersonView } from '@entretien/contracts';
import { postJson } from './api.js';
import { refuseMalformed } from './refuse-malformed.js';

/** Somebody new works here. */
export function addPerson(person: { id: string; name: string }): Promise<PersonView> {
  refuseMalformed(AddPerson, person);
  return postJson<PersonView>('/people', person);
}
