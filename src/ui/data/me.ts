'use client';

import { useQuery } from '@tanstack/react-query';
import { covers, type Role } from '@/core/access';
import { api } from './api';

/** What who sits here may do; as long as it is not known, no more than everybody may. */
export function useRole(): Role {
  const { data } = useQuery({ queryKey: ['me'], queryFn: () => api('GET /me'), staleTime: 60_000 });
  return data?.role ?? 'packer';
}

/** Whether who sits here buys and sells: sees what was paid, and what marketplaces get. */
export const useSells = (): boolean => covers(useRole(), 'seller');
