const began = Date.now();

/** A line that is written over itself on a terminal, and left out of a log. */
export function progressLine(text: string): void {
  if (process.stdout.isTTY) process.stdout.write(`\r${text}`);
}

/** Ends a line that was written over itself. */
export function progressOver(): void {
  if (process.stdout.isTTY) process.stdout.write('\n');
}

/** How long it still takes, in words, when so much of it is done. */
export function timeLeft(share: number): string {
  const seconds = Math.ceil((((Date.now() - began) / 1_000) * (1 - share)) / Math.max(share, 0.01));
  return seconds < 90 ? `${seconds} s` : `${Math.round(seconds / 60)} min`;
}
