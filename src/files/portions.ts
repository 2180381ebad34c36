/** The same values, so many at a time. */
export async function* portions<T>(values: AsyncIterable<T>, size: number): AsyncGenerator<T[]> {
  let some: T[] = [];
  for await (const value of values) {
    some.push(value);
    if (some.length >= size) {
      yield some;
      some = [];
    }
  }
  if (some.length) yield some;
}
