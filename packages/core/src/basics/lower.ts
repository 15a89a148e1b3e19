/** Words as they stand within a sentence: their first letter small. */
export function lower(text: string): string {
  return text.charAt(0).toLowerCase() + text.slice(1);
}
