import { fileURLToPath, URL } from 'node:url';

import vue from '@vitejs/plugin-vue';
import icons from 'unplugin-icons/vite';
import { defineConfig } from 'vite';
import type { Plugin } from 'vite';

const port = process.env.HUMMOCK_PORT ?? '7373';

/** Lets the frame in the page be painted before the style sheet is there: what is linked behind it holds nothing up. */
const sheetsBehindTheFrame: Plugin = {
  name: 'sheets-behind-the-frame',
  enforce: 'post',
  transformIndexHtml: {
    order: 'post',
    handler(html) {
      const sheets = /^\s*<link rel="stylesheet"[^>]*>\n/gm;
      const found = html.match(sheets)?.join('') ?? '';
      return html.replace(sheets, '').replace('  </body>', `${found}  </body>`);
    },
  },
};

export default defineConfig({
  plugins: [vue(), icons({ compiler: 'vue3' }), sheetsBehindTheFrame],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  // Bootstrap's own Sass is not ours to modernise.
  css: { preprocessorOptions: { scss: { quietDeps: true, silenceDeprecations: ['import'] } } },
  // The texts of the licences of all that is bundled; those of the server come from bin/licences.
  build: {
    target: 'es2022',
    license: { fileName: 'licences/pages.txt' },
    // What the worker keeps for when the server is away; it stands beside the page, since it hands out all of it.
    manifest: 'files.json',
    rolldownOptions: {
      input: { index: 'index.html', worker: 'src/kept/worker.ts' },
      output: { entryFileNames: ({ name }) => (name === 'worker' ? 'worker.js' : 'assets/[name]-[hash].js') },
    },
  },
  server: { proxy: { '/api': `http://127.0.0.1:${port}` } },
});
