import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { brotliCompressSync } from 'node:zlib';
import react from '@vitejs/plugin-react';
import { build, defineConfig, type Plugin } from 'vite';

/** Leaves a file packed beside it, once, for all who can unpack it. */
function pack(file: string): void {
  const path = `dist${file}`;
  if (!/\.(js|css|html|svg)$/.test(file) || !existsSync(path)) return;
  writeFileSync(`${path}.br`, brotliCompressSync(readFileSync(path)));
}

/**
 * Builds the service worker after the page, knowing the page's files: they are what it keeps on the device so
 * that the page opens without a connection.
 */
function serviceWorker(): Plugin {
  let files: string[] = [];
  return {
    name: 'service-worker',
    apply: 'build',
    generateBundle(_options, bundle) {
      files = Object.keys(bundle)
        .filter((name) => !name.endsWith('.map') && name !== 'index.html')
        .map((name) => `/${name}`);
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

export default defineConfig({
  plugins: [react(), serviceWorker()],
  server: { proxy: { '/api': 'http://127.0.0.1:4170' } },
  build: { chunkSizeWarningLimit: 900 },
});
