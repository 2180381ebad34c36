'use client';

import { useQuery } from '@tanstack/react-query';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { BuyerView } from '../../preview/_preview/buyer-view';

/** What a buyer would see of it on one marketplace, as it stands by now. */
export function BesidePreview({ itemId, version, accountId }: { itemId: number; version: number; accountId: number }) {
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['preview', itemId, version],
    queryFn: () => api('GET /items/{id}/preview', { params: { id: itemId } }),
    placeholderData: (before) => before,
  });
  if (isPending) return <Loading what="the preview" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  const account = data.accounts.find((one) => one.accountId === accountId) ?? data.accounts[0];
  return account ? <BuyerView account={account} /> : <p className="quiet p-3">Connect an account first.</p>;
}
