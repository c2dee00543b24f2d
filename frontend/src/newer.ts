import { phrase } from '@/phrases/shared'
import { windowShelf } from '@/stores/shelf'
import { useUi } from '@/stores/ui'
import type { Router } from 'vue-router'

const RELOADED = 'vast-harbor-reloaded'

/** The part of the program that this page began with. */
const mine = () => document.querySelector<HTMLScriptElement>('script[type=module][src]')?.src ?? ''

/**
 * After an upgrade the parts that this page would still fetch are gone: it is loaded anew, to where its owner was
 * going. What waits to be sent, and what was typed and refused, is kept over it.
 */
export function watchForNewer(router: Router) {
  const ui = useUi()
  let to = ''
  router.beforeEach((next) => void (to = next.fullPath))
  if (windowShelf.read(RELOADED)) {
    windowShelf.drop(RELOADED)
    ui.say(phrase('shared.newer.reloaded'))
  }

  let looking = false
  async function look() {
    if (looking) return
    looking = true
    const page = await fetch('/', { cache: 'no-store' }).catch(() => null)
    const text = page?.ok ? await page.text() : ''
    looking = false
    // Of the same program a part is missing for another reason: loading it anew would not help.
    if (!text || text.includes(new URL(mine(), location.href).pathname))
      return ui.say(phrase('shared.newer.part_missing'))
    windowShelf.write(RELOADED, to)
    location.assign(to || location.href)
  }
  addEventListener('vite:preloadError', () => void look())
}
