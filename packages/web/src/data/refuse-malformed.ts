import { malformedProblem, readStrictly } from '@entretien/contracts';
import { ApiProblem } from './api.js';

/** Throws what the server would say of something that is not as its contract has it. */
export function refuseMalformed(contract: new () => object, body: object): void {
  const sent = JSON.parse(JSON.stringify(body)) as object;
  const { errors } = readStrictly(contract, sent);
  if (errors.length > 0) throw new ApiProblem(malformedProblem(errors));
}
