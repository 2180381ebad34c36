import type { Joining } from '../../core/kit';
import type { KitRow } from '../../db/schema';
import type { Actor } from '../access/actor';
import type { LotNow } from './find-kit';

/** What is asked of the background: written down whole when it begins. */
export type LotsTask =
  | {
      do: 'add';
      kit: number;
      lots: number[];
      joining: Joining;
      choices: ({ lot: number } & Joining)[];
      seen?: { lot: number; item: number | null }[];
      anyway: boolean;
      publish: boolean;
    }
  | { do: 'change'; kit: number; lots: number[]; units: boolean; anyway: boolean };

/** What came of it by now; `left`: lots that stay as they are, and why. */
export type LotsResult = {
  made: number;
  added: number;
  changed: number;
  items: number;
  left: { lot: number; name: string; why: string }[];
};
/** The next lots of such a task. */
export type Portion<Do extends LotsTask['do']> = {
  actor: Actor;
  kit: KitRow;
  input: Extract<LotsTask, { do: Do }>;
  runId: number;
  lots: readonly LotNow[];
};
