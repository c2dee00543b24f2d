import tailwindcss from '@tailwindcss/vite'
import vueI18n from '@intlify/unplugin-vue-i18n/vite'
import vue from '@vitejs/plugin-vue'
import { fileURLToPath, URL } from 'node:url'
import { defineConfig } from 'vite'
import { compression, defineAlgorithm } from 'vite-plugin-compression2'
import { licences } from './licences.ts'

const phrases = fileURLToPath(new URL('./src/phrases/en/*.json', import.meta.url))

export default defineConfig({
  plugins: [
    vue(),
    // Texts are compiled when the interface is built, so that nothing of them is compiled on a page.
    vueI18n({ include: phrases, dropMessageCompiler: true }),
    tailwindcss(),
    licences(fileURLToPath(new URL('.', import.meta.url))),
    // Every file that gets smaller lies beside its packed form, which the program sends to who can unpack it.
    compression({
      include: /\.(js|css|html|json|svg|webmanifest|txt)$/,
      threshold: 1400,
      algorithms: [defineAlgorithm('gzip', { level: 9 }), defineAlgorithm('brotliCompress')],
    }),
  ],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  build: {
    outDir: '../src/vast_harbor/web/static',
    emptyOutDir: true,
    // What the service worker keeps for when the program does not answer.
    manifest: 'assets.json',
    chunkSizeWarningLimit: 900,
  },
  server: { proxy: { '/api': 'http://127.0.0.1:8650' } },
})
