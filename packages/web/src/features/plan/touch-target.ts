/** On a phone nothing is smaller than a thumb. */
export const touchTarget = { '& button': { minHeight: { xs: 44, md: 0 } } } as const;
