import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** Read as text: loading the endpoints themselves would open the database. */
const folder = join(__dirname, 'endpoints');
const files = readdirSync(folder).filter((name) => name !== 'index.ts');
const text = files.map((name) => readFileSync(join(folder, name), 'utf8')).join('\n');
const declared = [
  ...[...text.matchAll(/method: '([A-Z]+)',\s*path: '([^']+)'/g)].map((hit) => `${hit[1]} ${hit[2]}`),
  ...[...text.matchAll(/streamed\(\{\s*path: '([^']+)'/g)].map((hit) => `GET ${hit[1]}`),
];

test('every address is declared once', () => {
  expect(declared.length).toBeGreaterThan(100);
  expect(new Set(declared).size).toBe(declared.length);
});

test('each says what it answers, and the streams are among them', () => {
  expect(text.match(/^ {4}answer: /gm)?.length).toBe(declared.length);
  expect(declared).toEqual(expect.arrayContaining(['GET /insights/file', 'GET /live']));
});

test('their files are named like the folders of services, and the list names them all', () => {
  const services = readdirSync(join(__dirname, '..', 'services'));
  // Postage and templates are rooms of accounts and listings with doors of their own.
  const extra = ['postage.ts', 'templates.ts'];
  expect(files.filter((name) => !services.includes(name.replace('.ts', ''))).sort()).toEqual(extra);
  const index = readFileSync(join(folder, 'index.ts'), 'utf8');
  for (const name of files) expect(index).toContain(`from './${name.replace('.ts', '')}'`);
});

test('whatever the screens can do, the interface can do', () => {
  expect(declared).toEqual(
    expect.arrayContaining([
      'GET /items',
      'POST /items',
      'PATCH /items/{id}',
      'POST /items/{id}/photos',
      'PUT /items/{id}/listings/{account}',
      'POST /edits',
      'POST /runs/{id}/undo',
      'POST /publish',
      'POST /listings/end',
      'GET /jobs',
      'POST /jobs/retry',
      'GET /sales',
      'GET /accounts',
    ]),
  );
});
