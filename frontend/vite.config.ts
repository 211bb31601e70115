import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'
import { compression } from 'vite-plugin-compression2'
import vuetify from 'vite-plugin-vuetify'

export default defineConfig({
  plugins: [
    vue(),
    vuetify({ autoImport: true }),
    // The server sends these as they are: nothing is compressed twice, and nothing while somebody waits.
    compression({ algorithms: ['gzip', 'brotliCompress'], include: /assets\/.*\.(js|css|svg)$/, threshold: 1000 }),
  ],
  // Nothing inlined: the content security policy takes fonts from files only.
  build: {
    assetsInlineLimit: 0,
    // What several stages share comes in a few files: many small ones compress badly, and each has headers.
    rolldownOptions: {
      output: {
        advancedChunks: {
          groups: [
            { name: 'frame', test: /node_modules[\\/](?!vuetify|d3)|src[\\/](api|device)[\\/]/ },
            {
              name: 'job',
              test: /src[\\/](job|shared|checks|run|readings)[\\/]|node_modules[\\/]d3/,
              minShareCount: 2,
            },
            { name: 'controls', test: /node_modules[\\/]vuetify/, minShareCount: 3 },
          ],
        },
      },
    },
  },
  server: {
    fs: { allow: ['..'] },
    proxy: { '/api': 'http://127.0.0.1:8750' },
  },
})
