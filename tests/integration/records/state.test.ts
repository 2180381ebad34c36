import mysql from 'mysql2/promise';
import { knotState, type ListingFacts, remoteStates, wantedStates } from '../../../src/core/sync';
import { stack } from '../../support/stack';

test('the database derives the same state as the core, for every combination of facts', async () => {
  const connection = await mysql.createConnection({
    host: '127.0.0.1',
    port: stack.databasePort,
    user: 'netting',
    password: stack.databasePassword,
    database: 'netting',
  });
  await connection.query('create temporary table state_check like listing');
  await connection.query('alter table state_check drop index listing_knot');
  const combinations: ListingFacts[] = [];
  for (const wanted of wantedStates)
    for (const remote of remoteStates)
      for (const bits of [...Array(16).keys()])
        combinations.push({
          wanted,
          remote,
          dirty: (bits & 1) > 0,
          drifted: (bits & 2) > 0,
          busy: (bits & 4) > 0,
          problem: (bits & 8) > 0,
        });
  for (const one of combinations) {
    await connection.query(
      'insert into state_check (item_id, account_id, overrides, wanted, remote, content_dirty, drifted, busy, problem) values (1, 1, ?, ?, ?, ?, ?, ?, ?)',
      ['{}', one.wanted, one.remote, one.dirty, one.drifted, one.busy, one.problem],
    );
  }
  const [rows] = await connection.query('select state from state_check order by id');
  await connection.end();
  expect((rows as { state: string }[]).map((row) => row.state)).toEqual(combinations.map(knotState));
  expect(combinations).toHaveLength(wantedStates.length * remoteStates.length * 16);
});
