/** `1 item`, `1,250 items`. */
export const counted = (count: number, one: string): string =>
  `${count.toLocaleString('en')} ${count === 1 ? one : `${one}s`}`;

/** `1 item is`, `1,250 items are`. */
export const countedAre = (count: number, one: string): string =>
  `${counted(count, one)} ${count === 1 ? 'is' : 'are'}`;
