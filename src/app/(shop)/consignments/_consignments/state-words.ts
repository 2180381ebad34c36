import type { Answer } from '@/http/interface';

type View = Answer<'GET /consignments/{id}'>;

export const consignmentWords: Record<View['state'], string> = {
  choosing: 'Being chosen',
  packing: 'Being packed',
  shipped: 'On the way',
  settled: 'Settled',
  off: 'Called off',
};

export const shipmentWords: Record<View['shipments'][number]['state'], string> = {
  open: 'Being packed',
  told: 'Ready to go',
  shipped: 'On the way',
  received: 'Counted, something is missing',
  settled: 'All accounted for',
  off: 'Called off',
};
