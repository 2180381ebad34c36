import { eq, sql } from 'drizzle-orm';
import { nextPortions, type Progress, type Range, readKeptStep, type Step, withDone } from '../../../core/edit';
import { database } from '../../../db/client';
import { ownTransaction } from '../../../db/raw';
import { run, type TaskRow } from '../../../db/schema';
import { makeClips } from '../../../photos/clip';
import { makeSizes } from '../../../photos/derivatives';
import { needFfmpeg } from '../../../photos/ffmpeg';
import { advanceBeside } from '../../records/tasks/advance-task';
import { keepTask } from '../../records/tasks/keep-task';
import type { SendPart } from '../commit/queue-changes';
import { changePortion, type PortionOptions, type PortionResult } from './change-portion';
import { hearSales } from './followed-sales';
import { lookFor } from './step-photos';

/** What a change of many is to do: to these items, in the order of their numbers. */
export type EditTask = { ids: number[]; steps: Step[]; send: boolean; part?: SendPart };

/** What it has come to by now. */
export type EditResult = { items: number; listings: number; refused: number; reasons: Record<string, number> };

export const noEditResult: EditResult = { items: 0, listings: 0, refused: 0, reasons: {} };

/**
 * How many items are held at once: few to begin with, then as many as take about a sixth of a second, so that a sale in
 * the middle never waits for long.
 */
const firstPortion = 20;
const mostAtOnce = 3_000;
const aimMs = 160;

const nextSize = (size: number, tookMs: number): number =>
  Math.round(Math.max(5, Math.min(mostAtOnce, size * 2, (size * aimMs) / Math.max(1, tookMs))));

const clipsAtOnce = 2;
/** Whether steps make clips, for which nobody waits at a request. */
export const makesClips = (steps: readonly Step[]): boolean => steps.some((step) => step.do.verb === 'clip-make');

/** While the database writes one portion the next one is computed. */
const sideBySide = 2;

/**
 * Carries out the next portions of a change of many, side by side, each with the note that it is done in one short
 * transaction of its own.
 */
export async function editStep(task: TaskRow, holder: string, most?: number): Promise<TaskRow> {
  const { ids, steps } = task.input as EditTask; // written by `applyEdit`
  const progress = progressOf(task);
  // A clip takes some seconds: few are made at once, so that one sees how far it is.
  const few = makesClips(steps) ? clipsAtOnce : progress.size;
  if (makesClips(steps)) await needFfmpeg(aliveFor(task, holder));
  const given = { ...progress, size: most ?? Math.min(few, progress.size) };
  const left = nextPortions(given, ids.length, most === undefined ? sideBySide : 1);
  // With nothing left to do it is kept that nothing is.
  const portions: Range[] = left.length ? left : [[ids.length, ids.length]];
  const ended = await Promise.allSettled(portions.map((range) => carryOut(task, holder, range)));
  const failed = ended.find((one) => one.status === 'rejected');
  if (failed) throw failed.reason;
  // Whichever ended last has read what the others have kept.
  const [last] = ended
    .flatMap((one) => (one.status === 'fulfilled' ? [one.value] : []))
    .sort((a, b) => b.doneCount - a.doneCount);
  return last ? { ...last, input: task.input } : task;
}

/** Written below; one of before knows of no portions beyond. */
const progressOf = (task: TaskRow): Progress => ({
  at: 0,
  size: firstPortion,
  beyond: [],
  ...(task.cursor as Partial<Progress> | null),
});

/** Tells that a task is still worked on; of one that has just ended nobody has to be told. */
const aliveFor = (task: TaskRow, holder: string) => () => keepTask(database(), task.id, holder).catch(() => undefined);

async function carryOut(task: TaskRow, holder: string, range: Range): Promise<TaskRow> {
  const { ids, steps, send, part } = task.input as EditTask; // written by `applyEdit`
  const portion = ids.slice(...range);
  const runId = task.runId ?? 0;
  // A task of before may hold them in the form of before.
  const now = steps.map(readKeptStep);
  await Promise.all([hearSales(now, portion), lookFor(now, portion)]);
  let made: string[] = [];
  let clips: string[] = [];
  const kept = await ownTransaction(async (db, connection) => {
    const began = performance.now();
    const nothing: PortionResult = { items: 0, listings: 0, reasons: [], made: [], clips: [] };
    const how: PortionOptions = {
      connection,
      actor: { id: task.byId, name: task.byName },
      runId,
      steps: now,
      send,
      part,
    };
    const done = portion.length ? await changePortion(db, portion, how) : nothing;
    made = done.made;
    clips = done.clips;
    const tookMs = performance.now() - began;
    const kept = await advanceBeside(db, task, holder, (kept) => {
      const before = (kept.result ?? noEditResult) as EditResult; // written here
      const reasons = { ...before.reasons };
      for (const why of done.reasons) reasons[why] = (reasons[why] ?? 0) + 1;
      const progress = withDone(progressOf(kept), range);
      const result: EditResult = {
        items: before.items + done.items,
        listings: before.listings + done.listings,
        refused: before.refused + done.reasons.length,
        reasons,
      };
      return {
        cursor: { ...progress, size: nextSize(portion.length, tookMs) },
        done: portion.length,
        finished: progress.at >= ids.length,
        result,
      };
    });
    await db
      .update(run)
      .set({ itemCount: sql`${run.itemCount} + ${done.items}` })
      .where(eq(run.id, runId));
    return kept;
  });
  // With nobody held: what was made in words is made in pictures.
  const alive = aliveFor(task, holder);
  await makeSizes(made, alive);
  await makeClips(clips, alive);
  return kept;
}
