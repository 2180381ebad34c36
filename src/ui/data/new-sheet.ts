/** The address of a new sheet; each time another one, so that a sheet that was begun is not met again. */
export const newSheet = (): string => `/items/new?n=${Date.now().toString(36)}`;
