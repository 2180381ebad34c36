import { createLoader } from 'nuqs/server';
import { countItems } from '@/services/records/items/count-items';
import { findItems, findItemsSchema } from '@/services/records/items/find-items';
import { filterOf, firstRows, inventoryParams } from './_inventory/filters';
import { Inventory } from './_inventory/inventory';
import { FirstData, type SearchParams } from './first-data';

export const metadata = { title: 'Inventory' };

const load = createLoader(inventoryParams);

export default async function InventoryPage({ searchParams }: { searchParams: SearchParams }) {
  const query = await load(searchParams);
  const filter = filterOf(query);
  const search = { ...filter, sort: query.sort, dir: query.dir };
  return (
    <FirstData
      lists={[
        {
          key: ['items', search],
          read: () => findItems(findItemsSchema.parse({ ...search, limit: firstRows })),
          from: '',
        },
        {
          key: ['items-count', JSON.stringify(filter)],
          read: async () => ({ count: await countItems(filter) }),
          isLater: true,
        },
      ]}
    >
      <Inventory />
    </FirstData>
  );
}
