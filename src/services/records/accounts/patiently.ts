import { setTimeout } from 'node:timers/promises';
import { NettingError } from '../../../core/errors';

/** So long somebody at the screen waits for a marketplace that asks for a moment, in milliseconds. */
const longestMs = 5_000;
const mostTries = 3;

/**
 * What somebody at the screen waits for is asked again while a marketplace says that it is too much at the moment: it did
 * nothing then, so nothing is done twice. Any other answer, and a pause that is too long, is told at once.
 */
export async function patiently<T>(ask: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++)
    try {
      return await ask();
    } catch (error) {
      if (!(error instanceof NettingError && error.code === 'market-busy')) throw error;
      const pauseMs = error.facts.retryAfterMs ?? 1_000;
      if (tries >= mostTries || pauseMs > longestMs) throw error;
      await setTimeout(pauseMs);
    }
}
