/**
 * The file of a worker beside the module that starts it. Threads run built code; from the sources, as under test,
 * it is that of the last build.
 *
 * @param asker `import.meta.url` of the module beside which it stands
 */
export function builtWorker(asker: string, name: string): URL {
  const url = new URL(`./${name}.js`, asker);
  return asker.endsWith('.ts') ? new URL(url.href.replace('/src/', '/dist/')) : url;
}
