'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from '@/ui/controls/link';
import { Failed, Loading, PageHead } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { useTitle } from '@/ui/frame/use-title';
import { Belongs } from './belongs';
import { DriftRuleForm } from './drift-rules';
import { Fees } from './fees';
import { Manner } from './manner';
import { Mappings } from './mappings';
import { OfferRules } from './offer-rule';
import { OwnWords } from './own-words';
import { PaceForm } from './pace';
import { RuleNews } from './rule-news';

/** One account: its marketplace's rules and what no longer fits, fees and pace, how prices and texts are made, what was learned. */
export function AccountPage({ accountId }: { accountId: number }) {
  const client = useQueryClient();
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['accounts'],
    queryFn: () => api('GET /accounts'),
  });
  const [backs, setBacks] = useState(0);
  useTitle(data?.accounts.find((one) => one.id === accountId)?.name ?? '');
  if (isPending) return <Loading what="the account" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  const account = data.accounts.find((one) => one.id === accountId);
  if (!account) return <Failed error={new Error('There is no such account')} />;
  const changed = () => {
    void client.invalidateQueries({ queryKey: ['accounts'] });
    void client.invalidateQueries({ queryKey: ['rules', account.market] });
    void client.invalidateQueries({ queryKey: ['knowledge', account.market] });
    void client.invalidateQueries({ queryKey: ['stages'] });
  };
  const again = async () => {
    await client.invalidateQueries({ queryKey: ['accounts'] });
    setBacks((count) => count + 1);
  };
  const part = { account, changed, again };
  return (
    <>
      <PageHead title={account.name}>
        <span className="quiet">
          {account.remoteName} on {account.marketName}. {account.about}
        </span>
        <Link className="ml-auto underline" href="/marketplaces">
          All accounts
        </Link>
      </PageHead>
      <div className="grid grid-cols-[minmax(0,1fr)_24rem] max-lg:grid-cols-[minmax(0,1fr)]">
        <div className="min-w-0">
          <RuleNews account={account} changed={changed} />
          <Belongs key={`belongs ${backs}`} {...part} />
          <Mappings market={account.market} changed={changed} />
        </div>
        <aside className="border-l border-base-300">
          <Fees account={account} />
          <PaceForm key={`pace ${backs}`} {...part} />
          <DriftRuleForm {...part} />
          <Manner key={`manner ${backs}`} {...part} />
          <OfferRules key={`offers ${backs}`} {...part} />
          <OwnWords key={`words ${backs}`} {...part} />
        </aside>
      </div>
    </>
  );
}
