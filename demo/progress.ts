/** A line that is written over itself on a terminal, and left out of a log. */
export function progressLine(text: string): void {
  if (process.stdout.isTTY) process.stdout.write(`\r${text}`);
}
