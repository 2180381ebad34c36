/** A stock number: letters, digits, dots, dashes and slashes, beginning with a letter or digit, 40 at most. */
export const skuPattern = /^[A-Za-z0-9][A-Za-z0-9.\-/]{0,39}$/;
