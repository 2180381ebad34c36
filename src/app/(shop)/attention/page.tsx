import { lastAudit } from '@/services/audit/audit';
import { findCauses } from '@/services/outbox/find-causes';
import { findNeeds } from '@/services/outbox/find-needs';
import { findReminders } from '@/services/records/items/find-reminders';
import { FirstData } from '../first-data';
import { Attention } from './attention';

export const metadata = { title: 'Attention' };

export default async function AttentionPage() {
  const lists = [
    { key: ['causes'], read: async () => ({ causes: await findCauses() }) },
    { key: ['needs'], read: findNeeds, isLater: true },
    { key: ['reminders'], read: async () => ({ reminders: await findReminders() }) },
    { key: ['audit'], read: lastAudit },
  ];
  return (
    <FirstData lists={lists}>
      <Attention />
    </FirstData>
  );
}
