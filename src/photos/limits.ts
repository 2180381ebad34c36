/** Pictures of more pixels are not opened: a file of a few bytes may claim to be one. */
export const mostPixels = 120_000_000;
