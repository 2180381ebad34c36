'use client';

import { useCallback, useEffect, useState } from 'react';
import { type IntakeSettings, intakeSettingsSchema } from '@/core/batch/settings';

const keyOf = (batch: number) => `netting.intake-settings.${batch}`;

function kept(batch: number): IntakeSettings | null {
  try {
    return intakeSettingsSchema.safeParse(JSON.parse(localStorage.getItem(keyOf(batch)) ?? 'null')).data ?? null;
  } catch {
    return null;
  }
}

/** With what the next piece is recorded: each browser has its own, so that two people at one batch do not disturb each other. */
export function useSettings(
  batch: number,
  first: IntakeSettings,
): { settings: IntakeSettings; change: (part: Partial<IntakeSettings>) => void } {
  const [settings, setSettings] = useState(first);
  useEffect(() => setSettings((now) => kept(batch) ?? now), [batch]);
  const change = useCallback(
    (part: Partial<IntakeSettings>) =>
      setSettings((now) => {
        const next = { ...now, ...part };
        localStorage.setItem(keyOf(batch), JSON.stringify(next));
        return next;
      }),
    [batch],
  );
  return { settings, change };
}
