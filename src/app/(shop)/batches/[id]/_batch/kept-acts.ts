import type { IntakeAct } from '@/services/intake/intake-act';

/** What was done at the scan field and has not been heard by the server yet, in its order; kept in the browser. */
export type KeptAct = { act: IntakeAct; at: number };

const keyOf = (batch: number) => `netting.intake.${batch}`;

export function readActs(batch: number): KeptAct[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(keyOf(batch)) ?? '[]');
    return Array.isArray(kept) ? (kept as KeptAct[]) : []; // written below
  } catch {
    return [];
  }
}

const write = (batch: number, acts: readonly KeptAct[]): void =>
  acts.length ? localStorage.setItem(keyOf(batch), JSON.stringify(acts)) : localStorage.removeItem(keyOf(batch));

/** One more, behind the others: also behind those of another tab. */
export const addAct = (batch: number, act: IntakeAct): void =>
  write(batch, [...readActs(batch), { act, at: Date.now() }]);

const same = (a: IntakeAct, b: IntakeAct): boolean => JSON.stringify(a) === JSON.stringify(b);

/** These were heard. */
export const dropActs = (batch: number, heard: readonly IntakeAct[]): void =>
  write(
    batch,
    readActs(batch).filter(({ act }) => !heard.some((one) => same(one, act))),
  );
