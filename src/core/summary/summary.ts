import { z } from 'zod';
import { formatMoney, homeCurrency } from '../measure/money';

/** One thing that waited for a person when the summary was made. */
export const summaryLineSchema = z.object({
  says: z.string(),
  mend: z.string(),
  count: z.number(),
  /** The money in it, in minor units of the items' currency. */
  atStake: z.number().nullable(),
  isUrgent: z.boolean(),
});
export type SummaryLine = z.infer<typeof summaryLineSchema>;

/** What waited for a person on one day. */
export type Summary = {
  /** YYYY-MM-DD. */
  day: string;
  madeAt: string;
  lines: readonly SummaryLine[];
};

export function titleOf({ day, lines }: Summary): string {
  if (lines.length === 0) return `${day}: nothing needs you`;
  const urgent = lines.filter((one) => one.isUrgent).length;
  const things = lines.length === 1 ? 'one thing needs you' : `${lines.length} things need you`;
  return `${day}: ${things}${urgent ? `, ${urgent} at once` : ''}`;
}

/** All of it as plain text, a line each. */
export const wordsOf = ({ lines }: Summary): string =>
  lines
    .map(({ says, mend, count, atStake }) => {
      const money = atStake ? `, ${formatMoney(atStake, homeCurrency)} in it` : '';
      return `${says} (${count.toLocaleString('en')}${money}): ${mend}`;
    })
    .join('\n');

/** Minutes to wait after a try that failed, before the next; null when it is given up. */
export const nextTryMinutes = (tries: number): number | null => (tries >= 6 ? null : 5 * 2 ** (tries - 1));
