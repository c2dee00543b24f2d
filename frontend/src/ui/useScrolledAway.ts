import { onBeforeUnmount, onMounted, ref } from 'vue'

/** How far one scrolls before something that stays on top leaves or comes back [px]. */
const SOME = 24

/** Whether the page is being scrolled down: what stays on top may leave until one scrolls up again. */
export function useScrolledAway() {
  const away = ref(false)
  let last = 0

  function scrolled() {
    const now = window.scrollY
    if (Math.abs(now - last) < SOME && now > SOME) return
    away.value = now > last && now > 120
    last = now
  }
  onMounted(() => window.addEventListener('scroll', scrolled, { passive: true }))
  onBeforeUnmount(() => window.removeEventListener('scroll', scrolled))
  return away
}
