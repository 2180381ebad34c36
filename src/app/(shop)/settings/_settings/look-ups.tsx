'use client';

import { useQuery } from '@tanstack/react-query';
import { lookUpParts, lookUpSchema } from '@/core/item/look-up';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { keepSettings } from '@/ui/data/keep-settings';
import { useCommand } from '@/ui/data/use-command';
import { LinesForm } from './lines-form';

/** One look-up a line: its name, a blank, its address. */
function read(text: string) {
  return text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
    .map((line) => {
      const [, name = '', address = ''] = /^(.*?)\s+(\S+)$/.exec(line) ?? [];
      const one = lookUpSchema.safeParse({ name, address });
      if (one.success) return one.data;
      throw new Error(`“${line.slice(0, 60)}”: ${one.error.issues[0]?.message ?? 'no look-up'}`);
    });
}

/** Addresses somewhere else that are opened with an item's words, beside the scan and the sheet. */
export function LookUpSettings() {
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['settings'],
    queryFn: () => api('GET /settings'),
  });
  const save = useCommand(
    async (text: string) =>
      keepSettings({ lookUps: read(text) }, 'Kept; they stand beside each scan and on each sheet'),
    { touches: [['settings']] },
  );
  if (isPending) return <Loading what="the settings" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  const now = data.lookUps.map((one) => `${one.name} ${one.address}`).join('\n');
  return (
    <section aria-labelledby="look-ups">
      <h2 id="look-ups" className="mb-2 font-semibold">
        Look-ups
      </h2>
      <LinesForm
        label={`One a line: a name, and an address with ${lookUpParts.map((part) => `{${part}}`).join(' ')} where the item’s words go`}
        lines={now}
        rows={4}
        placeholder="Book register https://books.example/find?isbn={barcode}"
        button="Keep the look-ups"
        keep={save}
        look="mono"
      />
    </section>
  );
}
