/** What is unusual, in words that ask to look again. */
export function describeMark(mark: string): string {
  switch (mark) {
    case 'far-from-habit':
      return 'Far from its habit';
    case 'long-gap':
      return 'The first reading for over two months';
    case 'same-figure':
      return 'The same figure as last time';
    case 'before-commissioning':
      return 'Before it was commissioned';
    default:
      return mark.replaceAll('-', ' ');
  }
}
