import '@fontsource-variable/source-sans-3/wght.css'
import '@fontsource-variable/source-serif-4/wght.css'
import './style.css'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { watchForNewer } from './newer'
import { router } from './router'

const app = createApp(App).use(createPinia())
watchForNewer(router)
app.use(router).mount('#app')

// The last state stays readable without the program; browsers allow that on this computer, and with encryption.
if (import.meta.env.PROD && 'serviceWorker' in navigator)
  addEventListener('load', async () => {
    const worker = await navigator.serviceWorker.register('/sw.js').catch(() => null)
    worker?.active?.postMessage('renew')
  })
