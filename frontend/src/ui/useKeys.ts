import { useUi } from '@/stores/ui'
import { onBeforeUnmount, onMounted } from 'vue'

/** Keys that work anywhere outside of a field and of a dialog; Ctrl+Z works inside fields too. */
export function useKeys(handlers: Record<string, (event: KeyboardEvent) => void>) {
  const ui = useUi()

  function pressed(event: KeyboardEvent) {
    const typing = (event.target as HTMLElement).closest(
      'input, textarea, select, [contenteditable]',
    )
    const ctrl = event.ctrlKey || event.metaKey
    if (event.altKey || (typing && !ctrl)) return
    if (document.querySelector('[role=dialog][aria-modal=true]')) return
    const name =
      (ctrl ? 'ctrl+' : '') + (ctrl && event.shiftKey ? 'shift+' : '') + event.key.toLowerCase()
    const handler = handlers[name]
    if (!handler || (name.length === 1 && !ui.singleKeys)) return
    event.preventDefault()
    handler(event)
  }
  onMounted(() => window.addEventListener('keydown', pressed))
  onBeforeUnmount(() => window.removeEventListener('keydown', pressed))
}
