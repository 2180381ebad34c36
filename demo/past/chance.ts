import { seeded } from '../draw/scene';

/** Chance that comes out the same each time. */
export type Chance = {
  /** Between nothing and one. */
  share: () => number;
  whole: (from: number, to: number) => number;
  of: <T>(list: readonly T[]) => T;
  /** Days until something happens that happens to half of all within so many: at first seldom, then more often, then rarely. */
  daysUntil: (half: number) => number;
};

export function chanceOf(seed: number): Chance {
  const share = seeded(seed);
  const whole = (from: number, to: number) => from + Math.floor(share() * (to - from + 1));
  return {
    share,
    whole,
    of: (list) => list[whole(0, list.length - 1)] as (typeof list)[number], // no list is empty
    daysUntil: (half) => half * Math.log(1 / Math.max(1e-6, 1 - share())) ** 0.9 * 1.35,
  };
}

/** How much is bought at this time of the year: most before the holidays, film also in the summer. */
export function season(at: Date, isFilm: boolean): number {
  const month = at.getUTCMonth();
  if (month === 10 || month === 11) return 1.8;
  if (isFilm && month >= 5 && month <= 7) return 1.4;
  return month === 1 || month === 8 ? 0.75 : 1;
}
