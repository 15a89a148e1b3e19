/** The first letters of a name’s first and last word, for where it has no room. */
export function initialsOf(name: string): string {
  const text = name.trim().split(/\s+/);
  const letters = [text[0], text.length > 1 ? text.at(-1) : undefined].map(
    (word) => [...(word ?? '')][0] ?? '',
  );
  return letters.join('').toUpperCase();
}
