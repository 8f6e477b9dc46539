import localesPlugin from '@react-aria/optimize-locales-plugin';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  // The interface speaks English; words of the components in thirty other languages stay out.
  plugins: [localesPlugin.vite({ locales: ['en-US'] }), react()],
  resolve: { conditions: ['visograph-src', 'module', 'browser', 'development|production'] },
  build: { outDir: 'dist', emptyOutDir: true, target: 'es2022', chunkSizeWarningLimit: 900 },
});
