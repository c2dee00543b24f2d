/** A day as it is written in the log: from an ISO date, or counted from 1970. */
export const dateOf = (day: string | number, weekday?: 'short') =>
  new Date(typeof day === 'number' ? day * 864e5 : `${day}T12:00Z`).toLocaleDateString('en-GB', {
    weekday,
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    timeZone: 'UTC',
  })
