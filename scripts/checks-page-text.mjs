const verdictNames = { none: 'no comparison yet' };

function fieldText(field) {
  const optional = field.optional ? ', if known' : '';
  switch (field.as) {
    case 'choice':
      return `${field.name}: ${field.options.map(({ name }) => name).join(' / ')}${optional}`;
    case 'number':
      return `${field.name}, ${field.min} to ${field.max} ${field.unit}${optional}`;
    case 'quantity':
      return `${field.name} (${field.quantity.replaceAll('-', ' ')})${optional}`;
    default:
      return `${field.name}${optional}`;
  }
}

/** The page of the checks, as text: what is asked, and every limit with its source. */
export function checksPage({ checkLibrary, howOf, limitLines }) {
  const parts = checkLibrary.map((check) => {
    const rows = limitLines[check.code].map(
      ({ verdict, when, source }) => `| ${verdictNames[verdict] ?? verdict} | ${when} | ${source} |`,
    );
    return [
      `## ${check.name}`,
      howOf(check, undefined),
      `Asked: ${check.fields.map(fieldText).join('; ')}.`,
      ['| verdict | when | source |', '|---|---|---|', ...rows].join('\n'),
    ].join('\n\n');
  });

  return `# Checks

Made from the library by \`npm run checks-page\`; a test compares them. Pressures are gauge pressures. Of everything that a measurement shows the worst rules, and the rest is said. *good* is what nothing here is met by; *watch*: keep an eye on it; *act*: in this visit; *stop*: do not run. The manual and local law come before all of it; "(memory)" marks what was recalled from a standard and not looked up.

Which checks a unit has follows from its data plate, and from who breathes its air: carbon monoxide, samples and the monitor belong to every breathing set, whatever its family.

${parts.join('\n\n')}
`;
}
