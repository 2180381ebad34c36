/** Positions in a list, the second one outside. */
export type Range = readonly [from: number, to: number];

/**
 * How far a list has come that is worked off in portions, some of them side by side: everything before `at` is done, and
 * the `beyond`, in order and apart from each other.
 */
export type Progress = { at: number; size: number; beyond: Range[] };

/** The next portions that nobody has done yet, as many as are worked on side by side. */
export function nextPortions({ at, size, beyond }: Progress, length: number, most: number): Range[] {
  const portions: Range[] = [];
  let from = at;
  for (const done of [...beyond, [length, length] as const]) {
    while (from < done[0] && portions.length < most) {
      const to = Math.min(from + Math.max(1, size), done[0]);
      portions.push([from, to]);
      from = to;
    }
    from = Math.max(from, done[1]);
  }
  return portions;
}

/** The progress once a portion is done as well. */
export function withDone(progress: Progress, [from, to]: Range): Progress {
  const all = [...progress.beyond, [from, to] as const].sort((a, b) => a[0] - b[0]);
  let { at } = progress;
  const beyond: Range[] = [];
  for (const range of all) {
    if (range[0] <= at) at = Math.max(at, range[1]);
    else beyond.push(range);
  }
  return { ...progress, at, beyond };
}
