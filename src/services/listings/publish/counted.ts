export const counted = (number: number, what: string) =>
  `${number.toLocaleString('en')} ${what}${number === 1 ? '' : 's'}`;
