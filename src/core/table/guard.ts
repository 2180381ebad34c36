/** What makes a spreadsheet take a text for a formula: source, the signs that common spreadsheets start one with. */
const runs = /^'*[=+\-@\t\r\n]/;
const guardedText = /^'+[=+\-@\t\r\n]/;
/** A number below zero does nothing there, and is wanted as a number. */
const plainNumber = /^-\d+(\.\d+)?$/;

/** A text as it stands in a file that a spreadsheet will open: what would run there carries an apostrophe before it. */
export const guarded = (text: string): string => (runs.test(text) && !plainNumber.test(text) ? `'${text}` : text);

/** The text that was guarded; every other one as it is. */
export const unguarded = (text: string): string => (guardedText.test(text) ? text.slice(1) : text);
