import { notFound } from 'next/navigation';
import { findBatch } from '@/services/intake/find-batch';
import { findLines } from '@/services/intake/find-lines';
import { readSettings } from '@/services/records/accounts/read-settings';
import { findPresets } from '@/services/records/batches/find-presets';
import { FirstData } from '../../first-data';
import { Batch } from './_batch/batch';

export const metadata = { title: 'Batch' };

export default async function BatchPage({ params }: { params: Promise<{ id: string }> }) {
  const id = Number((await params).id);
  if (!Number.isInteger(id) || id < 1) notFound();
  return (
    <FirstData
      lists={[
        { key: ['batch', id], read: () => findBatch(id) },
        // A command may be scanned before anything else: what it means is there.
        { key: ['settings'], read: () => readSettings() },
        { key: ['intake-presets'], read: async () => ({ presets: await findPresets() }) },
        { key: ['batch-lines', id, 'all'], read: () => findLines(id, { limit: 50 }), from: 0 },
      ]}
    >
      <Batch id={id} key={id} />
    </FirstData>
  );
}
