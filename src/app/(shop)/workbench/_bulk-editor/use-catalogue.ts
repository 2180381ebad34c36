import { skipToken, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { type Catalogue, fieldsFor, fixedFields, listingField, makeField } from '@/core/field';
import { api } from '@/ui/data/api';

/** The fields that steps may change; with an account also what its marketplace asks for. */
export function useCatalogue(account: number | null): Catalogue {
  const { data: custom } = useQuery({
    queryKey: ['custom-fields'],
    queryFn: () => api('GET /custom-fields'),
    staleTime: 60_000,
  });
  const { data: there } = useQuery({
    queryKey: ['fields', account],
    queryFn: account === null ? skipToken : () => api('GET /fields', { query: { account } }),
    staleTime: 60_000,
  });
  return useMemo(() => {
    const base = fieldsFor(custom?.fields);
    const listing = there
      ? there.fields
          .filter((field) => field.on === 'listing')
          .map(({ id, ...entry }) => makeField('listing', id, entry))
      : fixedFields.flatMap((id) => listingField(id) ?? []);
    return {
      ...base,
      fields: [...base.fields, ...listing.filter((field) => field.id !== 'sku')],
      listing: (id) => listing.find((field) => field.id === id),
    };
  }, [custom, there]);
}
