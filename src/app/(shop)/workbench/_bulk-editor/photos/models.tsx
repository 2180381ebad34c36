import { skipToken, useQuery } from '@tanstack/react-query';
import { createContext, type ReactNode, useContext } from 'react';
import type { Shot } from '@/services/changes/preview/preview-shots';
import type { Selection } from '@/services/records/items/selection';
import { api } from '@/ui/data/api';

type Model = { id: number; sku: string; title: string; photos: Shot[] };

/** Items on which photo steps are tried, and pictures that many of the chosen items have. */
export type Models = { models: Model[]; shared: { hash: string; items: number }[]; isRead: boolean };

const none: Models = { models: [], shared: [], isRead: false };
const Known = createContext<Models>(none);
export const useModels = (): Models => useContext(Known);

/** Asked for once a step is about photos. */
export function ModelsOf({
  selection,
  wanted,
  children,
}: {
  selection: Selection | null;
  wanted: boolean;
  children: ReactNode;
}) {
  const found = useQuery({
    queryKey: ['photo-models', JSON.stringify(selection)],
    queryFn: selection && wanted ? () => api('POST /photos/shared', { body: { selection } }) : skipToken,
  });
  const { data } = found;
  return <Known value={data ? { models: data.models, shared: data.photos, isRead: true } : none}>{children}</Known>;
}
