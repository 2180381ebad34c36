export type Figure = {
  id: string;
  value: number;
  unit: string;
  baseline: number | null;
  ratio: number | null;
  goal: string;
  ok: boolean;
};

export const median = (values: number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
export const percentile = (values: number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))] ?? 0;

export async function time(work: () => Promise<unknown>): Promise<number> {
  const start = performance.now();
  await work();
  return performance.now() - start;
}

/** Both sides by turns, so that what the machine does besides falls on both; medians of `rounds`. */
export async function sideBySide(
  rounds: number,
  ours: () => Promise<number>,
  raw: () => Promise<number>,
): Promise<{ ours: number; raw: number; spread: number }> {
  const a: number[] = [];
  const b: number[] = [];
  await ours();
  await raw();
  for (let round = 0; round < rounds; round++) {
    a.push(await ours());
    b.push(await raw());
  }
  return { ours: median(a), raw: median(b), spread: (Math.max(...b) - Math.min(...b)) / median(b) };
}

export const ratioFigure = (id: string, { ours, raw }: { ours: number; raw: number }, goal: number): Figure => ({
  id,
  value: Math.round(ours * 10) / 10,
  unit: 'ms',
  baseline: Math.round(raw * 10) / 10,
  ratio: Math.round((ours / raw) * 100) / 100,
  goal: `≤ ${goal} ×`,
  ok: ours / raw <= goal,
});

export const limitFigure = (id: string, value: number, goal: number): Figure => ({
  id,
  value: Math.round(value * 10) / 10,
  unit: 'ms',
  baseline: null,
  ratio: null,
  goal: `≤ ${goal} ms`,
  ok: value <= goal,
});

export function print(figures: Figure[], asJson: boolean): void {
  for (const one of figures) {
    if (asJson) console.log(JSON.stringify(one));
    else
      console.log(
        `${one.ok ? '  ' : '! '}${one.id.padEnd(46)} ${String(one.value).padStart(10)} ${one.unit}  raw ${String(one.baseline ?? '–').padStart(9)}  ratio ${String(one.ratio ?? '–').padStart(6)}  goal ${one.goal}`,
      );
  }
}
