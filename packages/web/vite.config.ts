import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { brotliCompressSync } from 'node:zlib';
import react from '@vitejs/plugin-react';
import { build, defineConfig, type Plugin, type Rolldown } from 'vite';
import { asksOfAll, firstAsks } from './src/app/first-asks.js';

/** Leaves a file packed beside it, once, for all who can unpack it. */
function pack(file: string): void {
  const path = `dist${file}`;
  if (!/\.(js|css|html|svg)$/.test(file) || !existsSync(path)) return;
  writeFileSync(`${path}.br`, brotliCompressSync(readFileSync(path)));
}

/** The script that sets a view’s files and answers under way; it is written as it runs. */
function earlyScript(views: object): string {
  return `(() => {
  const asked = (window.entretienEarly = {});
  for (const [path, files, asks] of ${JSON.stringify(views)}) {
    const found = new RegExp(path).exec(location.pathname);
    if (!found) continue;
    for (const file of files) {
      const link = document.createElement('link');
      link.rel = 'modulepreload';
      link.href = '/' + file;
      document.head.append(link);
    }
    for (const ask of asks) {
      const address = '/api' + ask.replace(':id', found[1]);
      asked[address] = fetch(address);
      asked[address].catch(() => undefined);
    }
  }
})();
`;
}

/** A file of the bundle, and all that it imports. */
function reach(bundle: Rolldown.OutputBundle, file: string, into = new Set<string>()): Set<string> {
  const chunk = bundle[file];
  if (chunk?.type !== 'chunk' || into.has(file)) return into;
  into.add(file);
  for (const next of chunk.imports) reach(bundle, next, into);
  return into;
}

/** For each view, every file that it needs beyond those of the frame. */
function filesOfViews(bundle: Rolldown.OutputBundle): (view: string) => readonly string[] {
  const chunks = Object.values(bundle).filter((file) => file.type === 'chunk');
  const entry = chunks.find(({ isEntry }) => isEntry);
  const frame = entry ? reach(bundle, entry.fileName) : new Set();
  return (view) => {
    const home = `/features/${view}.tsx`;
    const chunk = chunks.find(({ moduleIds }) => moduleIds.some((module) => module.endsWith(home)));
    if (!chunk) throw new Error(`There is no view ${view} whose files could be fetched early.`);
    return [...reach(bundle, chunk.fileName)].filter((file) => !frame.has(file));
  };
}

/** Puts the script of the first asks before all others. */
function firstAsksScript(files: string[]): Plugin {
  let written = { file: '', script: '' };
  return {
    name: 'first-asks',
    apply: 'build',
    transformIndexHtml: {
      order: 'post',
      handler(_html, { bundle = {} }) {
        const filesOf = filesOfViews(bundle);
        const views = firstAsks.map(({ path, view, asks }) => [
          `^${path.replace(':id', '([0-9a-f-]{36})')}$`,
          filesOf(view),
          [...asksOfAll, ...asks],
        ]);
        const script = earlyScript(views);
        const file = `assets/early-${createHash('sha1').update(script).digest('hex').slice(0, 8)}.js`;
        written = { file, script };
        files.push(`/${file}`);
        return [{ tag: 'script', attrs: { src: `/${file}` }, injectTo: 'head-prepend' }];
      },
    },
    writeBundle: () => writeFileSync(`dist/${written.file}`, written.script),
  };
}

/**
 * Builds the service worker after the page, knowing the page's files: they are what it keeps on the device so
 * that the page opens without a connection.
 */
function serviceWorker(files: string[]): Plugin {
  return {
    name: 'service-worker',
    apply: 'build',
    generateBundle(_options, bundle) {
      files.push(
        ...Object.keys(bundle)
          .filter((name) => !name.endsWith('.map') && name !== 'index.html')
          .map((name) => `/${name}`),
      );
    },
    async closeBundle() {
      for (const file of [...files, '/mark.svg', '/index.html']) pack(file);
      const name = `entretien-page-${createHash('sha1').update(files.join()).digest('hex').slice(0, 12)}`;
      await build({
        configFile: false,
        logLevel: 'warn',
        publicDir: false,
        define: { SHELL_FILES: JSON.stringify([...files, '/mark.svg']), SHELL_NAME: JSON.stringify(name) },
        build: {
          emptyOutDir: false,
          lib: { entry: 'src/sw/service-worker.ts', formats: ['es'], fileName: () => 'sw.js' },
        },
      });
    },
  };
}

/** What is sent is checked against these where it is sent: who only reads needs none of them. */
const CONTRACTS = /(packages\/contracts|class-validator|class-transformer|node_modules\/validator)\//;

/** The files of the page, as the build finds them. */
const files: string[] = [];

export default defineConfig({
  plugins: [react(), firstAsksScript(files), serviceWorker(files)],
  server: { proxy: { '/api': 'http://127.0.0.1:4170' } },
  build: {
    chunkSizeWarningLimit: 900,
    // What most views want comes in one file: on a poor line each file costs a way there and back.
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            { name: 'shared', test: (id: string) => !CONTRACTS.test(id), minShareCount: 12, priority: 1 },
            { name: 'contracts', test: CONTRACTS, minShareCount: 8, includeDependenciesRecursively: false },
          ],
        },
      },
    },
  },
});
