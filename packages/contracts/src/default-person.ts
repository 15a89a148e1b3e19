/** Who is meant while nobody has said a name: the person every installation starts with. */
export const DEFAULT_PERSON_ID = '00000000-0000-4000-8000-000000000001';
