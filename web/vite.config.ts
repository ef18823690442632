import tailwindcss from '@tailwindcss/vite'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'
import { hanFaces } from './hanFaces'

export default defineConfig({
  // Kept white space: the formatter may break a line wherever there is a space, and the space must stay.
  plugins: [vue({ template: { compilerOptions: { whitespace: 'preserve' } } }), tailwindcss(), hanFaces()],
  build: {
    outDir: '../src/PoliteTally.Web/wwwroot',
    emptyOutDir: true,
    assetsInlineLimit: 0,
    // The student page is a page of its own, so that it weighs little.
    rolldownOptions: {
      input: ['index.html', 'page.html'],
      output: {
        // What reads pictures lies in a folder of its own, for it alone may run WebAssembly.
        // Languages are asked for by their name.
        assetFileNames: ({ names }) =>
          names.some((name) => name.endsWith('.traineddata.gz'))
            ? 'assets/reading/[name][extname]'
            : names.some((name) => /^(tesseract|worker\.min)/.test(name))
              ? 'assets/reading/[name]-[hash][extname]'
              : 'assets/[name]-[hash][extname]',
      },
    },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:5080', '/live': { target: 'http://127.0.0.1:5080', ws: true } } },
  test: { environment: 'node' },
})
