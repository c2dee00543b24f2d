/** Whether there is room for more than what a screen answers first; read once, when a screen opens. */
export const wide = (): boolean => window.matchMedia?.('(min-width: 768px)').matches ?? true
