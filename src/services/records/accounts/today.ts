/** Today (UTC), as 2026-11-23. */
export const today = (): string => new Date().toISOString().slice(0, 10);
