import type { IntakeAct } from '@/services/intake/intake-act';

/** What was done at the scan field and has not been heard by the server yet, in its order; kept in the browser. */
export type KeptAct = { act: IntakeAct; at: number };
/** A scan that was heard and not taken, with the reason; kept until a person says what becomes of it. */
export type RefusedAct = { act: Extract<IntakeAct, { act: 'scan' }>; why: string };

type Kept = { waiting: KeptAct; refused: RefusedAct };
const names: Record<keyof Kept, string> = { waiting: 'netting.intake', refused: 'netting.intake-refused' };

function read<K extends keyof Kept>(kind: K, batch: number): Kept[K][] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(`${names[kind]}.${batch}`) ?? '[]');
    return Array.isArray(kept) ? (kept as Kept[K][]) : []; // written below
  } catch {
    return [];
  }
}

function write<K extends keyof Kept>(kind: K, batch: number, acts: readonly Kept[K][]): void {
  const name = `${names[kind]}.${batch}`;
  if (acts.length) localStorage.setItem(name, JSON.stringify(acts));
  else localStorage.removeItem(name);
}

export const readActs = (batch: number): KeptAct[] => read('waiting', batch);
export const readRefused = (batch: number): RefusedAct[] => read('refused', batch);

/** One more, behind the others: also behind those of another tab. */
export const addAct = (batch: number, act: IntakeAct): void =>
  write('waiting', batch, [...readActs(batch), { act, at: Date.now() }]);

const same = (a: IntakeAct, b: IntakeAct): boolean => JSON.stringify(a) === JSON.stringify(b);

/** These were heard. */
export const dropActs = (batch: number, heard: readonly IntakeAct[]): void =>
  write(
    'waiting',
    batch,
    readActs(batch).filter(({ act }) => !heard.some((one) => same(one, act))),
  );

/** A scan was not taken: it stays here. */
export const keepRefused = (batch: number, refused: RefusedAct): void =>
  write('refused', batch, [...readRefused(batch).filter((one) => one.act.key !== refused.act.key), refused]);

export const dropRefused = (batch: number, key: string): void =>
  write(
    'refused',
    batch,
    readRefused(batch).filter((one) => one.act.key !== key),
  );
