/** On a phone nothing is smaller than a thumb. */
export const thumbs = { '& button': { minHeight: { xs: 44, md: 0 } } } as const;
