import { mergeConfig } from 'vite';
import { defineConfig } from 'vitest/config';

import pages from './vite.config';

export default mergeConfig(
  pages,
  defineConfig({
    test: {
      include: ['src/**/*.test.ts'],
      setupFiles: ['src/test/setup.ts'],
      environmentOptions: { happyDOM: { url: 'http://localhost/' } },
    },
  }),
);
