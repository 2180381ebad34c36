import type { Answer } from '@/http/interface';

export const stateWords: Record<Answer<'GET /batches'>['batches'][number]['state'], string> = {
  open: 'Open',
  reviewed: 'Reviewed',
  sent: 'Sent',
  closed: 'Closed',
};
