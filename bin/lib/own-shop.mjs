import { rmSync } from 'node:fs';
import { readSettings } from './settings.mjs';
import { endOnSignal, runScript, startApplication, startGround } from './stack.mjs';

/**
 * A shop of its own beside every other one, begun empty: filled, put through something, and looked over at the end. Then
 * everything ends, with what came of it as the program's code.
 * @param settings ports and data folder, which nothing else uses
 * @param fill the program that fills it, with its arguments
 * @param work what it is put through; true when that went well
 */
export async function inOwnShop({ settings: given, fill: [filler, ...args], work }) {
  const settings = readSettings(given);
  rmSync(settings.dataFolder, { recursive: true, force: true });
  const { processes, env } = await startGround(settings);
  const end = endOnSignal(processes);
  let isFine = false;
  try {
    await startApplication(processes, settings, env);
    await runScript(filler, env, args);
    try {
      isFine = await work({ settings, processes, env });
    } finally {
      // Whatever was broken meanwhile: in the end everything adds up, also where something else did not.
      await runScript('src/worker/audit-once.ts', env);
    }
  } catch (error) {
    console.error(error);
    isFine = false;
  }
  await end(isFine ? 0 : 1);
}
