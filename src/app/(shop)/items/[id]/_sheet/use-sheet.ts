import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useRef } from 'react';
import type { ItemPatch } from '@/core/item/item';
import type { Json } from '@/core/json';
import type { ItemSheet, SheetColumn } from '@/services/items/item-sheet';
import { ApiProblem, api } from '@/ui/data/api';
import { useNotice } from '@/ui/frame/providers';
import type { Born } from './use-autosave';

/** The item with what every account gets of it, kept fresh. */
export function useSheetData(itemId: number) {
  const client = useQueryClient();
  const query = useQuery({
    queryKey: ['sheet', itemId],
    queryFn: () => (itemId ? api('GET /items/{id}', { params: { id: itemId } }) : api('GET /items/blank')),
    refetchInterval: itemId ? 5_000 : false,
  });
  // A new one gets its number while something of it is under way: what comes after that is of the number.
  const now = useRef(itemId);
  now.current = itemId;
  const again = useCallback(() => {
    void client.invalidateQueries({ queryKey: ['stages'] });
    void client.invalidateQueries({ queryKey: ['open-items'] });
    void client.invalidateQueries({ queryKey: ['history', now.current] });
    return client.invalidateQueries({ queryKey: ['sheet', now.current] });
  }, [client]);
  const saved = useCallback(
    (patch: ItemPatch, version: number | null) => {
      // An answer that is still on its way may be of before the save: it must not be shown any more.
      void client.cancelQueries({ queryKey: ['sheet', itemId] });
      client.setQueryData<ItemSheet>(
        ['sheet', itemId],
        (now) => now && { ...now, item: { ...now.item, ...patch, version: version ?? now.item.version } },
      );
      void again();
    },
    [again, client, itemId],
  );
  /** One that was stored just now is shown as it was typed, until the server's own answer comes. */
  const shownAs = useCallback(
    ({ id, sku, patch }: Born) => {
      client.setQueryData<ItemSheet>(['sheet', id], () => {
        const blank = client.getQueryData<ItemSheet>(['sheet', 0]);
        return blank && { ...blank, item: { ...blank.item, ...patch, id, sku, version: 1 } };
      });
      void client.invalidateQueries({ queryKey: ['stages'] });
      void client.invalidateQueries({ queryKey: ['open-items'] });
    },
    [client],
  );
  return { query, again, saved, shownAs };
}

/** `settle` saves what was typed and says the item's number: a new one is stored by it. */
type Sheet = { ownCategory: string; settle: () => Promise<number>; again: () => Promise<unknown> };

/** What can be done with an item's listings from its sheet. */
export function useListingDeeds({ ownCategory, settle, again }: Sheet) {
  const notice = useNotice();
  const tell = useCallback(
    (error: unknown) => notice(error instanceof ApiProblem ? `${error.message}. ${error.fix ?? ''}` : 'Not saved'),
    [notice],
  );
  const mapCategory = useCallback(
    async (column: SheetColumn, categoryId: string) => {
      try {
        await api('PUT /accounts/{id}/categories', {
          params: { id: column.accountId },
          body: { ownCategory, categoryId },
        });
        notice(`“${ownCategory}” is kept for ${column.name} from now on`);
        await again();
      } catch (error) {
        tell(error);
      }
    },
    [again, notice, ownCategory, tell],
  );
  const place = useCallback(
    async (column: Pick<SheetColumn, 'accountId' | 'name'>, here: boolean) => {
      try {
        const itemId = await settle();
        await api('PUT /items/{id}/listings/{account}/target', {
          params: { id: itemId, account: column.accountId },
          body: { here },
        });
        notice(here ? `The item is for ${column.name}, too` : `The item is left out on ${column.name}`);
        await again();
      } catch (error) {
        tell(error);
      }
    },
    [again, notice, settle, tell],
  );
  const end = useCallback(
    async (column: Pick<SheetColumn, 'accountId' | 'name'>) => {
      try {
        const itemId = await settle();
        const selection = { kind: 'items' as const, ids: [itemId] };
        await api('POST /listings/end', { body: { selection, accounts: [column.accountId] } });
        notice(`The listing on ${column.name} is being ended; publish it again to bring it back`);
        await again();
      } catch (error) {
        tell(error);
      }
    },
    [again, notice, settle, tell],
  );
  const takeModel = useCallback(
    async (column: SheetColumn, model: number) => {
      try {
        const itemId = await settle();
        const { taken } = await api('POST /items/{id}/listings/{account}/model', {
          params: { id: itemId, account: column.accountId },
          body: { model },
        });
        notice(taken.length ? `${column.name} takes over: ${taken.join(', ')}` : 'Both say the same already');
        await again();
      } catch (error) {
        tell(error);
      }
    },
    [again, notice, settle, tell],
  );
  const write = useCallback(
    async (accountId: number, field: string, value: Json) => {
      try {
        const itemId = await settle();
        await api('PUT /items/{id}/listings/{account}', {
          params: { id: itemId, account: accountId },
          body: { field, value },
        });
        await again();
      } catch (error) {
        tell(error);
      }
    },
    [again, settle, tell],
  );
  return { mapCategory, place, end, takeModel, write };
}
