/** The field of a unit's meter; found again by the one before it. */
export const fieldId = (compressorId: string) => `meter-${compressorId}`;
