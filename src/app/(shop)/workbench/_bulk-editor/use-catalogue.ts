import { useQueries, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { type Catalogue, fieldsFor, fixedFields, listingField, makeField } from '@/core/field';
import { api } from '@/ui/data/api';
import type { StepDraft } from './steps';

/** The fields that a step may change: of one on accounts also what the first of their marketplaces asks for. */
export type CatalogueOf = (step: Pick<StepDraft, 'on' | 'accounts'>) => Catalogue;

type Fields = Awaited<ReturnType<typeof api<'GET /fields'>>>['fields'];

const listingFields = (there: Fields | undefined) =>
  there
    ? there.filter((field) => field.on === 'listing').map(({ id, ...entry }) => makeField('listing', id, entry))
    : fixedFields.flatMap((id) => listingField(id) ?? []);

/**
 * @param accounts those whose marketplaces' fields are spoken of
 * @returns the fields of a step, and whether all that is spoken of has been read
 */
export function useCatalogues(accounts: readonly number[]): { of: CatalogueOf; isRead: boolean } {
  const { data: custom } = useQuery({
    queryKey: ['custom-fields'],
    queryFn: () => api('GET /custom-fields'),
    staleTime: 60_000,
  });
  const wanted = [...new Set(accounts)];
  const there = useQueries({
    queries: wanted.map((account) => ({
      queryKey: ['fields', account],
      queryFn: () => api('GET /fields', { query: { account } }),
      staleTime: 60_000,
    })),
  });
  const read = there.map((one) => one.data?.fields);
  // biome-ignore lint/correctness/useExhaustiveDependencies: which accounts, and which of them have been read
  const of: CatalogueOf = useMemo(() => {
    const base = fieldsFor(custom?.fields);
    const made = (fields: Fields | undefined): Catalogue => {
      const listing = listingFields(fields);
      return {
        ...base,
        fields: [...base.fields, ...listing.filter((field) => field.id !== 'sku')],
        listing: (id) => listing.find((field) => field.id === id),
      };
    };
    const plain = made(undefined);
    const byAccount = new Map(wanted.map((account, at) => [account, read[at] ? made(read[at]) : plain]));
    return ({ on, accounts: [first] }) => (on === 'accounts' && first ? byAccount.get(first) : undefined) ?? plain;
  }, [custom, wanted.join(), read.map((one) => one?.length ?? 0).join()]);
  return { of, isRead: custom !== undefined && there.every((one) => !one.isPending) };
}
