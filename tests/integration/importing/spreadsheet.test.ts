import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { closeDatabase } from '../../../src/db/client';
import { download, sendFile } from '../../support/files';
import { readyItem, strapOfTwo } from '../../support/items';
import { accountOf, call, until } from '../../support/stack';

const folder = mkdtempSync(join(tmpdir(), 'netting-sheet-'));
afterAll(async () => {
  rmSync(folder, { recursive: true, force: true });
  await closeDatabase();
});

const isInstalled = spawnSync('soffice', ['--version']).status === 0;
if (!isInstalled) console.warn('Skipped: no spreadsheet is installed here (Debian: libreoffice-calc-nogui)');

/** Opened and saved by a real spreadsheet. */
function throughSpreadsheet(path: string, ending: 'xlsx' | 'csv'): Buffer {
  // A CSV is told to be UTF-8, commas, quotes; with what it takes for numbers and dates as it does by itself.
  const filter = ending === 'csv' ? ['--infilter=CSV:44,34,76,1,,0,false,true'] : [];
  const to = ending === 'csv' ? 'csv:Text - txt - csv (StarCalc):44,34,76,1,,0,false,true' : 'xlsx';
  const out = join(folder, 'out');
  const done = spawnSync(
    'soffice',
    [
      `-env:UserInstallation=file://${folder}/profile`,
      '--headless',
      ...filter,
      '--convert-to',
      to,
      '--outdir',
      out,
      path,
    ],
    { encoding: 'utf8', timeout: 120_000 },
  );
  if (done.status !== 0) throw new Error(done.stderr);
  return readFileSync(join(out, path.split('/').at(-1) ?? ''));
}

const test_ = isInstalled ? test : test.skip;
type Counts = Record<'same' | 'change' | 'conflict' | 'new' | 'refused', number>;
type Row = { kind: string; label: string; why: string | null; cells: { column: string; now: string; file: string }[] };

test_.each(['xlsx', 'csv'] as const)(
  '%s: opened by a spreadsheet and saved, nothing in it has changed',
  async (format) => {
    const items = [
      await readyItem({
        sku: `00${process.pid}${format.length}7`,
        title: '=1+1',
        barcode: '0012345678905',
        boughtOn: '2026-03-04',
      }),
      await readyItem({
        title: 'Łódź “quoted”; with, signs\u00a0and 漢字 👩‍🚀',
        barcode: '9783161484100',
        price: 123_456,
      }),
      await readyItem({ ...strapOfTwo, keywords: ['one, two', 'three'], description: '<p>Two</p><p>“lines”</p>' }),
      await readyItem({ title: '+49 prefix', expiresOn: '2030-12-31', notes: 'a\nb\n\nc', weightGrams: 1_200 }),
    ];
    const account = await accountOf('Hallowick');
    const columns = [
      'sku',
      'row.variation',
      'row.key',
      'title',
      'price',
      'quantity',
      'barcode',
      'boughtOn',
      'expiresOn',
    ];
    const { body } = await call<{ exportId: number }>('POST', '/exports', {
      selection: { kind: 'items', ids: items.map((one) => one.id) },
      columns: [
        ...columns,
        'keywords',
        'description',
        'notes',
        'weightGrams',
        `on.${account}.title`,
        `on.${account}.price`,
      ],
    });
    const path = join(folder, `items.${format}`);
    writeFileSync(path, (await download(`/exports/${body.exportId}/file?format=${format}`)).bytes);
    const { id } = await sendFile(`items.${format}`, throughSpreadsheet(path, format));
    await call('POST', `/imports/${id}/check`, {});
    const { counts } = await until(
      async () => (await call<{ state: string; counts: Counts }>('GET', `/imports/${id}`)).body,
      (one) => one.state === 'checked',
    );
    const { rows } = (await call<{ rows: Row[] }>('GET', `/imports/${id}/rows`)).body;
    expect(rows).toEqual([]);
    expect(counts).toMatchObject({ same: 6, change: 0, conflict: 0, new: 0, refused: 0 });
  },
);
