'use client';

import { DaysForm } from './days-form';

/** After how long something stands under Attention by itself. */
export const LookedAt = () => (
  <DaysForm
    id="looked-at"
    title="What should be looked at"
    fields={[
      { name: 'unsoldDays', label: 'Nothing of it was sold, in days', least: 7, most: 3_650 },
      { name: 'bestBeforeDays', label: 'Past its best within, in days', least: 1, most: 730 },
    ]}
    button="Keep these days"
    kept="Kept; Attention goes by it"
  />
);
