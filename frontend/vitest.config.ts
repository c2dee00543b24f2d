import vueI18n from '@intlify/unplugin-vue-i18n/vite'
import vue from '@vitejs/plugin-vue'
import { fileURLToPath, URL } from 'node:url'
import { defineConfig } from 'vitest/config'

const phrases = fileURLToPath(new URL('./src/phrases/en/*.json', import.meta.url))

export default defineConfig({
  plugins: [vue(), vueI18n({ include: phrases, dropMessageCompiler: true })],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    environment: 'happy-dom',
    pool: 'threads',
    isolate: false,
    include: ['tests/**/*.test.ts'],
    setupFiles: ['tests/setup.ts'],
    restoreMocks: true,
    // A machine that is busy elsewhere is slow, not wrong.
    testTimeout: 60_000,
    hookTimeout: 60_000,
  },
})
