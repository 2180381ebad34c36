import { readSettings } from '@/services/records/accounts/read-settings';
import { loadCustomFields } from '@/services/records/items/load-custom-fields';
import { FirstData } from '../first-data';
import { Settings } from './_settings/settings';

export const metadata = { title: 'Settings' };

export default async function SettingsPage() {
  const lists = [
    { key: ['settings'], read: () => readSettings() },
    { key: ['custom-fields'], read: async () => ({ fields: await loadCustomFields() }) },
  ];
  return (
    <FirstData lists={lists}>
      <Settings />
    </FirstData>
  );
}
