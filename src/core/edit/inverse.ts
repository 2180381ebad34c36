export type RecordedChange = { field: string; from: unknown; to: unknown };

export type UndoVerdict = { kind: 'restore'; value: unknown } | { kind: 'changed-since'; now: unknown };

/**
 * Undoing one recorded change: the old value comes back when the field still holds what the change left there;
 * when somebody changed it since, that is said and nothing is overwritten unseen.
 * Stock is a sum of movements: undoing takes back the difference, whatever was sold meanwhile.
 */
export function undoChange(change: RecordedChange, now: unknown): UndoVerdict {
  if (
    change.field === 'quantity' &&
    typeof change.from === 'number' &&
    typeof change.to === 'number' &&
    typeof now === 'number'
  ) {
    const restored = now + change.from - change.to;
    return restored < 0 ? { kind: 'changed-since', now } : { kind: 'restore', value: restored };
  }
  return now === change.to ? { kind: 'restore', value: change.from } : { kind: 'changed-since', now };
}
