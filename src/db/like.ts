/** Words as they stand, inside a pattern of LIKE. */
export const likeText = (text: string): string => text.replace(/[%_\\]/g, '\\$&');
