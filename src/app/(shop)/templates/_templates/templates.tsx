'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { parseAsInteger, useQueryState } from 'nuqs';
import { useState } from 'react';
import { sayCondition } from '@/core/filter/say';
import { homeCurrency } from '@/core/measure/money';
import type { TemplateView } from '@/services/listings/templates/find-templates';
import { RemovedList } from '@/ui/controls/removed-list';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { type Draft, emptyDraft, TemplateEditor } from './template-editor';

const summary = (template: TemplateView) =>
  template.conditions.length
    ? template.conditions.map((one) => sayCondition(one, [], { currency: homeCurrency })).join(', ')
    : 'the default';

/** Texts chosen by rule: the list on the left, one of them with its trial on the right. */
export function Templates() {
  const client = useQueryClient();
  const [chosen, choose] = useQueryState('template', parseAsInteger);
  const [fresh, setFresh] = useState<Draft | null>(null);
  /** How often something was taken back: what was written then is read anew. */
  const [backs, setBacks] = useState(0);
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['templates'],
    queryFn: () => api('GET /templates'),
  });
  const accounts = useQuery({
    queryKey: ['accounts'],
    queryFn: () => api('GET /accounts'),
  });
  if (isPending || accounts.isPending) return <Loading what="the templates" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  const template = data.templates.find((one) => one.id === chosen) ?? null;
  const kept = async (id: number | null, isBack = false) => {
    setFresh(null);
    await client.invalidateQueries({ queryKey: ['templates'] });
    await choose(id);
    if (isBack) setBacks((count) => count + 1);
  };
  const names = new Map((accounts.data?.accounts ?? []).map((one) => [one.id, one.name]));
  return (
    <>
      <PageHead title="Templates">
        <button
          type="button"
          className="btn btn-primary btn-sm ml-auto"
          onClick={() => {
            setFresh(emptyDraft);
            void choose(null);
          }}
        >
          New template
        </button>
      </PageHead>
      <div className="grid grid-cols-[17rem_minmax(0,1fr)] max-lg:grid-cols-1">
        <nav aria-label="Templates" className="border-r border-base-300 py-2">
          <ul>
            {data.templates.map((one) => (
              <li key={one.id}>
                <button
                  type="button"
                  aria-current={one.id === chosen ? 'true' : undefined}
                  className={`w-full border-l-2 px-3 py-1.5 text-left hover:bg-base-200 ${one.id === chosen ? 'border-base-content bg-base-200' : 'border-transparent'}`}
                  onClick={() => {
                    setFresh(null);
                    void choose(one.id);
                  }}
                >
                  <span className="font-medium">{one.name}</span>
                  <span className="quiet block text-[12px]">
                    {one.accounts.length ? one.accounts.map((id) => names.get(id) ?? '').join(', ') : 'all accounts'};{' '}
                    {summary(one)}
                  </span>
                </button>
              </li>
            ))}
          </ul>
          <RemovedList kind="template" />
        </nav>
        {template || fresh ? (
          <TemplateEditor
            key={`${template?.id ?? 'new'} ${backs}`}
            id={template?.id ?? null}
            start={template ? { ...template, print: template.print ?? null, for: 'all' } : (fresh ?? emptyDraft)}
            accounts={accounts.data?.accounts ?? []}
            kept={kept}
          />
        ) : (
          <Empty title={data.templates.length ? 'Choose a template' : 'No template yet'}>
            A template says a text, a tag or a field for every item that its conditions name. The most specific one
            wins; one without conditions is the default. What a person typed is never overwritten.
          </Empty>
        )}
      </div>
    </>
  );
}
