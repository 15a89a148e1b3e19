import type { Role } from '@entretien/core/access';

/** What each role is called, and what it may. */
export const roleTexts: Readonly<Record<Role, readonly [name: string, may: string]>> = {
  lead: ['Lead', 'Everything, and who else may what.'],
  technician: ['Technician', 'Everything on machines; signs for services.'],
  trainee: ['Trainee', 'Everything but signing, and taking a machine back into service.'],
  customer: ['Customer', 'Reads how their own machines stand, and their reports.'],
};
