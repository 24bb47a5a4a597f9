import { mergeConfig } from 'vite';
import { defineConfig } from 'vitest/config';

import pages from './vite.config';

export default mergeConfig(
  pages,
  defineConfig({
    test: {
      include: ['src/**/*.test.ts'],
      // A whole stop is mounted and drawn in some of them, and a busy machine takes its time over that.
      testTimeout: 60_000,
      setupFiles: ['src/test/setup.ts'],
      environmentOptions: { happyDOM: { url: 'http://localhost/' } },
    },
  }),
);
