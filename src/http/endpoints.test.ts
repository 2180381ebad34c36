import { readFileSync } from 'node:fs';
import { join } from 'node:path';

/** Read as text: loading the endpoints themselves would open the database. */
const files = ['items', 'changes', 'work', 'shops']
  .map((name) => readFileSync(join(__dirname, 'endpoints', `${name}.ts`), 'utf8'))
  .join('\n');
const declared = [...files.matchAll(/method: '([A-Z]+)',\s*path: '([^']+)'/g)].map((hit) => `${hit[1]} ${hit[2]}`);

test('every address is declared once', () => {
  expect(declared.length).toBeGreaterThan(25);
  expect(new Set(declared).size).toBe(declared.length);
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
