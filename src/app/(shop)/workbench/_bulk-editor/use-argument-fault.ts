import { useQuery } from '@tanstack/react-query';
import type { argumentFault } from '@/core/edit/argument-fault';
import type { StepDraft } from './steps';

/** Verbs whose arguments are read by a language of their own. */
const written: StepDraft['verb'][] = ['replace', 'formula', 'fill'];

/**
 * What says whether patterns and formulas can be read, fetched once one is written. Until then the server says it, which
 * reads them again in any case.
 */
export function useArgumentFault(steps: readonly Pick<StepDraft, 'verb'>[]): typeof argumentFault | undefined {
  const { data } = useQuery({
    queryKey: ['argument-fault'],
    queryFn: async () => ({ faultOf: (await import('@/core/edit/argument-fault')).argumentFault }),
    enabled: steps.some((step) => written.includes(step.verb)),
    staleTime: Number.POSITIVE_INFINITY,
  });
  return data?.faultOf;
}
