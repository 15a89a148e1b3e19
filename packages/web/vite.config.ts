import { createHash } from 'node:crypto';
import react from '@vitejs/plugin-react';
import { build, defineConfig, type Plugin } from 'vite';

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
