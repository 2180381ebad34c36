import { randomUUID } from 'node:crypto';
import { firstSettings, type IntakeSettings } from '../../src/core/batch';
import type { BatchView } from '../../src/services/intake/find-batch';
import type { IntakeAct } from '../../src/services/intake/intake-act';
import type { LineView } from '../../src/services/intake/line-view';
import { call, until } from './stack';

export const settingsWith = (some: Partial<IntakeSettings> = {}): IntakeSettings => ({ ...firstSettings, ...some });

/** A batch of its own for a test. */
export async function newBatch(more: Record<string, unknown> = {}): Promise<number> {
  const { status, body } = await call<{ id: number }>('POST', '/batches', {
    name: `Pile ${randomUUID().slice(0, 8)}`,
    ...more,
  });
  if (status !== 201 && status !== 200) throw new Error(`no batch was made: ${JSON.stringify(body)}`);
  return body.id;
}

export const scanOf = (text: string, some: Partial<IntakeSettings> = {}, key: string = randomUUID()): IntakeAct => ({
  act: 'scan',
  key,
  text,
  settings: settingsWith(some),
});

type Done = { lines: LineView[]; problem: { message: string; fix: string | null } | null };

export async function act(batch: number, ...acts: IntakeAct[]): Promise<Done[]> {
  const { status, body } = await call<{ done: Done[] }>('POST', `/batches/${batch}/acts`, { acts });
  if (status >= 300) throw new Error(`${status}: ${JSON.stringify(body)}`);
  return body.done;
}

/** One scan, and the line that it became. */
export async function scan(batch: number, text: string, some: Partial<IntakeSettings> = {}): Promise<LineView> {
  const [done] = await act(batch, scanOf(text, some));
  const [line] = done?.lines ?? [];
  if (!line) throw new Error(`no line: ${done?.problem?.message}`);
  return line;
}

export const linesOf = async (batch: number, query = 'limit=200'): Promise<LineView[]> =>
  (await call<{ lines: LineView[] }>('GET', `/batches/${batch}/lines?${query}`)).body.lines;

/** The line once everything is there that is known of it. */
export async function whole(batch: number, id: number): Promise<LineView> {
  const look = async () => (await linesOf(batch, `ids=${id}`))[0];
  const line = await until(look, (seen) => seen?.isDone === true);
  if (!line) throw new Error(`there is no line ${id}`);
  return line;
}

/** Everything that catalogues tell of a batch's pieces is kept. */
export const settled = async (batch: number): Promise<unknown> =>
  until(
    () => linesOf(batch),
    (lines) => lines.every((line) => line.isSettled || line.isUndone),
    60_000,
  );

export const batchOf = async (id: number): Promise<BatchView> => (await call<BatchView>('GET', `/batches/${id}`)).body;

/** The code of a book on the stand-ins' shelf, from 0 on. */
export function bookCode(index: number): string {
  const twelve = `9797${44_000_010 + 39 + index}`;
  const sum = [...twelve].reduce((total, digit, at) => total + Number(digit) * (at % 2 ? 3 : 1), 0);
  return `${twelve}${(10 - (sum % 10)) % 10}`;
}

/** A right code of thirteen digits that nobody knows. */
export function strangeCode(index: number): string {
  const twelve = `2099${String(10_000_000 + index)}`;
  const sum = [...twelve].reduce((total, digit, at) => total + Number(digit) * (at % 2 ? 3 : 1), 0);
  return `${twelve}${(10 - (sum % 10)) % 10}`;
}
