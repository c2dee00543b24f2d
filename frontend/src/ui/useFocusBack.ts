import { onUnmounted, watch } from 'vue'

/**
 * Gives the focus back to what had it before a dialog opened. A dialog that is taken from the page
 * with its component, and not closed first, would leave the focus on nothing.
 */
export function useFocusBack(open: () => boolean) {
  let before: Element | null = null

  function giveBack() {
    const to = before
    before = null
    // After the rest of the page can be reached again.
    setTimeout(() => {
      if (document.activeElement === document.body && to instanceof HTMLElement) to.focus()
    })
  }
  watch(
    open,
    (now) => {
      if (now) before = document.activeElement
      else giveBack()
    },
    { immediate: true },
  )
  onUnmounted(giveBack)
}
