import { findColumns } from '@/services/exporting/find-columns';
import { findExports } from '@/services/exporting/find-exports';
import { findImports } from '@/services/importing/find-imports';
import { FirstData } from '../first-data';
import { FilesPage } from './_files/files';

export const metadata = { title: 'Files' };

export default function Page() {
  return (
    <FirstData
      lists={[
        { key: ['file-columns'], read: findColumns },
        { key: ['exports'], read: findExports },
        { key: ['imports'], read: findImports },
      ]}
    >
      <FilesPage />
    </FirstData>
  );
}
