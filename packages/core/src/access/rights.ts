/**
 * Who somebody is here. A trainee does everything but answer for a machine with a name; a customer reads what is
 * theirs.
 */
export const roles = ['lead', 'technician', 'trainee', 'customer'] as const;
export type Role = (typeof roles)[number];

/** What a request may need; every route asks for one of these. */
export const rights = ['open', 'self', 'see-own', 'see', 'work', 'sign', 'lead'] as const;
export type Right = (typeof rights)[number];

interface RightModule {
  /** What it allows, in a line. */
  readonly allows: string;
  /** Who has it; `anybody` also who is not signed in. */
  readonly has: readonly (Role | 'anybody')[];
}

const staff = ['lead', 'technician', 'trainee'] as const;

/** The table of rights: what each allows, and who has it. */
export const rightModules: Readonly<Record<Right, RightModule>> = {
  open: { allows: 'Signing in, and whether the server is well', has: ['anybody'] },
  self: { allows: 'One’s own account, sessions and passkeys', has: roles },
  'see-own': { allows: 'Standing, reports and papers of one’s own sites; staff: of all', has: roles },
  see: { allows: 'Reading everything of machines and work', has: staff },
  work: { allows: 'Recording work, planning, stock, machines and sites', has: staff },
  sign: {
    allows: 'Signing for a service; taking a machine back into service',
    has: ['lead', 'technician'],
  },
  lead: { allows: 'People and their rights, customers, workshop settings, the audit', has: ['lead'] },
};

/**
 * Whether a role has a right.
 *
 * @param role null: not signed in
 */
export function hasRight(role: Role | null, right: Right): boolean {
  const { has } = rightModules[right];
  return has.includes('anybody') || (role !== null && has.includes(role));
}
