import { fileURLToPath, URL } from 'node:url';

import vue from '@vitejs/plugin-vue';
import icons from 'unplugin-icons/vite';
import { defineConfig } from 'vite';
import type { Plugin } from 'vite';

import { fileOf, FILES, PROGRAM } from './chunks';
import type { Graph } from './chunks';

const port = process.env.HUMMOCK_PORT ?? '7373';

/**
 * Lets the frame in the page be painted before the style sheet is there: what is linked behind it holds nothing up. The program is asked
 * for with the page, since the first file only asks for more.
 */
const firstPage: Plugin = {
  name: 'first-page',
  enforce: 'post',
  transformIndexHtml: {
    order: 'post',
    handler(html, { bundle = {} }) {
      const linked = /^\s*<link rel="stylesheet"[^>]*href="\/([^"]+)">\n/gm;
      const sheets = new Set([...html.matchAll(linked)].map(([, href = '']) => href));
      const files = new Set<string>();
      const ask = (name: string) => {
        const file = bundle[name];
        if (file?.type !== 'chunk' || files.has(name)) return;
        files.add(name);
        file.viteMetadata?.importedCss.forEach((sheet) => sheets.add(sheet));
        file.imports.forEach(ask);
      };
      const program = Object.values(bundle).find((file) => file.type === 'chunk' && file.name === PROGRAM);
      if (program) ask(program.fileName);
      const links = [...sheets].map((sheet) => `    <link rel="stylesheet" crossorigin href="/${sheet}">\n`);
      return {
        html: html.replace(linked, '').replace('  </body>', `${links.join('')}  </body>`),
        tags: [...files]
          .filter((file) => !html.includes(file))
          .map((file) => ({
            tag: 'link',
            attrs: { rel: 'modulepreload', crossorigin: true, href: `/${file}` },
            injectTo: 'head' as const,
          })),
      };
    },
  },
};

export default defineConfig({
  plugins: [vue({ features: { optionsAPI: false } }), icons({ compiler: 'vue3' }), firstPage],
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
      output: {
        entryFileNames: ({ name }) => (name === 'worker' ? 'worker.js' : 'assets/[name]-[hash].js'),
        assetFileNames: ({ names: [name = ''] }) => `assets/${name.replace(/[~.].*/, '')}-[hash][extname]`,
        chunkFileNames: ({ name }) => `assets/${name.split('~')[0]}-[hash].js`,
        // A file costs a slow line more than a few kilobytes: what several places share is joined by who shares it, and what is small
        // goes with what is most like it.
        codeSplitting: {
          groups: [
            ...FILES.map((file, at) => ({
              name: (id: string, graph: Graph) => (fileOf(id, graph) === file ? file : null),
              priority: FILES.length - at,
            })),
            // Files are never joined by how little they are: which ones are depends on the folder that it is built in.
            { name: 'shared', minShareCount: 2, entriesAware: true, entriesAwareMergeThreshold: 0 },
          ],
        },
      },
    },
  },
  server: { proxy: { '/api': `http://127.0.0.1:${port}` } },
});
