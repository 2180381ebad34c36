// The shape of a select is known to the one who wrote it; the driver cannot tell.
export const rowsOf = <T>(result: unknown): T[] => (result as [T[]])[0];
