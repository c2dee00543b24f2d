import { usePlan } from '@/stores/plan'

/** The English in which dates are written: the owner's of the rig, else the browser's. */
function english() {
  const browser = navigator.language.startsWith('en') ? navigator.language : 'en-GB'
  return usePlan().rig?.dates ?? browser
}

/** A moment as an owner says it: 27 Nov, 08:15. */
export const when = (at: string | number, timeZone?: string) =>
  new Date(at).toLocaleString(english(), {
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
    timeZone,
  })

/** A day of a year that is told beside it: 27 Nov. */
export const dayOf = (at: number) =>
  new Date(at).toLocaleDateString(english(), { day: 'numeric', month: 'short', timeZone: 'UTC' })

/** A day as it is written: from an ISO date, or counted from 1970. */
export const dateOf = (day: string | number, weekday?: 'short') =>
  new Date(typeof day === 'number' ? day * 864e5 : `${day}T12:00Z`).toLocaleDateString(english(), {
    weekday,
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    timeZone: 'UTC',
  })
