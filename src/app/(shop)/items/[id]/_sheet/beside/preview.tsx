'use client';

import { useQuery } from '@tanstack/react-query';
import type { Told } from '@/services/items/preview-item';
import { api } from '@/ui/api';
import { Failed, Loading } from '@/ui/states';
import { BuyerView } from '../../told/_told/buyer-view';

/** What a buyer would see of it on one marketplace, as it stands by now. */
export function BesidePreview({ itemId, version, accountId }: { itemId: number; version: number; accountId: number }) {
  const { data, isPending, isError, error, refetch } = useQuery({
    queryKey: ['told', itemId, version],
    queryFn: () => api<Told>(`/items/${itemId}/told`),
    placeholderData: (before) => before,
  });
  if (isPending) return <Loading what="the preview" />;
  if (isError) return <Failed error={error} retry={() => void refetch()} />;
  const account = data.accounts.find((one) => one.accountId === accountId) ?? data.accounts[0];
  return account ? <BuyerView account={account} /> : <p className="quiet p-3">Connect an account first.</p>;
}
