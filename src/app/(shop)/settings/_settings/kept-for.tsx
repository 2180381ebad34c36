'use client';

import { DaysForm } from './days-form';

/** How long what was changed, and what was sent, is kept; older things go by themselves. */
export const KeptFor = () => (
  <DaysForm
    id="kept-for"
    title="How long things are kept"
    fields={[
      { name: 'historyDays', label: 'Changes of items, in days', least: 30, most: 3_650 },
      { name: 'requestDays', label: 'What was sent and told, in days', least: 7, most: 3_650 },
    ]}
    button="Keep these times"
    kept="Kept; what is older goes within the hour"
    note="A change that is gone cannot be taken back any more. Sales and the ledger of stock stay for good."
  />
);
