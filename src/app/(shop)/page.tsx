import { Inventory } from './_inventory/inventory';

export const metadata = { title: 'Inventory' };

export default function InventoryPage() {
  return <Inventory />;
}
