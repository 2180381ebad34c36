/** Does something with each of a list, so many at once, begun in the order of the list. */
export async function inTurn<T>(
  list: readonly T[],
  atOnce: number,
  work: (one: T, index: number) => Promise<void>,
): Promise<void> {
  const left = list.entries();
  const lane = async () => {
    for (const [index, one] of left) await work(one, index);
  };
  await Promise.all(Array.from({ length: atOnce }, lane));
}
