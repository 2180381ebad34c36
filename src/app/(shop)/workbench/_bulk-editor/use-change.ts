import { useState } from 'react';
import { sayStep } from '@/core/edit/step';
import { homeCurrency } from '@/core/measure/money';
import type { AccountView } from '@/services/accounts/find-accounts';
import type { Edit } from '@/services/changes/many/edit-schema';
import type { EditConsequences } from '@/services/changes/preview/consequences';
import type { Selection } from '@/services/records/items/selection';
import { api, apiLines } from '@/ui/data/api';
import { type HeldBack, nothingHeldBack, sendPart } from '@/ui/data/consequences';
import { withoutItems } from '@/ui/data/selection';
import { useCommand } from '@/ui/data/use-command';
import type { Done } from './result';
import { type Lines, useLines } from './use-lines';
import type { WrittenSteps } from './use-steps';

export type PreparedChange = {
  /** What is seen: the whole choice; null while nothing can be done with it. */
  seen: Edit | null;
  counting: Lines<EditConsequences>;
  counts: EditConsequences | null;
  /** Items whose tick was taken away. */
  left: ReadonlySet<number>;
  leave: (ids: ReadonlySet<number>) => void;
  /** Accounts and fields that are saved and not sent. */
  held: HeldBack;
  hold: (held: HeldBack) => void;
  at: string | null;
  setAt: (at: string | null) => void;
  canSave: boolean;
  canSend: boolean;
  apply: (send: boolean) => void;
  undo: (runId: number) => void;
  done: Done | null;
  again: () => void;
  busy: boolean;
  problem: unknown;
};

/** What becomes of the chosen items by these steps: counted as it goes, saved, sent, taken back. */
export function useChange(
  selection: Selection | null,
  { steps, catalogueAt }: Pick<WrittenSteps, 'steps' | 'catalogueAt'>,
  accounts: readonly AccountView[],
): PreparedChange {
  const [done, setDone] = useState<Done | null>(null);
  const [left, leave] = useState<ReadonlySet<number>>(new Set());
  const [held, hold] = useState<HeldBack>(nothingHeldBack);
  const [at, setAt] = useState<string | null>(null);
  const complete = steps.length > 0;
  // What is seen is the whole choice; what is counted and done is what was not left out.
  const seen = selection && complete ? { selection, steps } : null;
  const taken = selection && withoutItems(selection, left);
  const edit = taken && complete ? { selection: taken, steps } : null;
  const counting = useLines(
    edit && !done ? JSON.stringify(edit) : null,
    // asked only where there is something to ask
    (signal) => apiLines('POST /edits/counting', { body: edit as Edit, signal }),
    'last',
  );
  const counts = (edit && counting.lines[0]) ?? null;
  // A part is named by what is found: it is known once all has been counted, of this very change.
  const isHeldBack = held.accounts.length > 0 || held.fields.length > 0;
  const part = !isHeldBack ? undefined : counts && counting.isWhole ? sendPart(counts, held) : null;
  const applied = useCommand(async (send: boolean) => {
    if (!edit) return undefined;
    const nameOf = (id: number) => accounts.find((account) => account.id === id)?.name ?? 'an account';
    const title = steps
      .map((step) => sayStep(step, homeCurrency, catalogueAt(step), nameOf))
      .join('; ')
      .slice(0, 200);
    const body = { ...edit, send, title, part: send ? (part ?? undefined) : undefined, at: at ?? undefined };
    setDone({ applied: await api('POST /edits', { body }), sent: send, at });
    return undefined;
  });
  const undone = useCommand(async (runId: number) => {
    const send = done !== null && 'applied' in done && done.sent;
    setDone({ undone: await api('POST /runs/{id}/undo', { params: { id: runId }, body: { send } }), of: runId });
    return undefined;
  });
  const busy = applied.busy || undone.busy;
  const canSave = complete && !busy && !done && (counts?.changed ?? 0) > 0;
  return {
    seen,
    counting,
    counts,
    left,
    leave,
    held,
    hold,
    at,
    setAt,
    canSave,
    canSend: canSave && part !== null,
    apply: (send) => void applied.run(send),
    undo: (runId) => void undone.run(runId),
    done,
    again: () => setDone(null),
    busy,
    problem: applied.error ?? undone.error,
  };
}
