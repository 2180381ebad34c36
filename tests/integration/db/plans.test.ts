import { priorities } from '../../../src/core/sync';
import { closeDatabase, pool } from '../../../src/db/client';

type Plan = { table: string | null; type: string | null; key: string | null };
afterAll(closeDatabase);

const small = new Set(['account', 'worker_presence', 'setting']);
const waits = `j.account_id = a.id and j.state = 'waiting' and j.due_at <= utc_timestamp(3)`;
/** The looks that run whether or not there is anything to do. */
const looks: [string, string][] = [
  [
    'what is due',
    `select a.id, exists(select 1 from job j where ${waits} and j.priority <= ${priorities.quantity}) as urgent, exists(select 1 from job j where ${waits} and j.priority > ${priorities.quantity}) as others, exists(select 1 from inbox i where i.account_id = a.id and i.state = 'waiting' and i.due_at <= utc_timestamp(3)) as events from account a having urgent or others or events`,
  ],
  [
    'what is under way',
    `select id, account_id, lease_owner, lease from job where account_id in (1, 2, 3) and state = 'running'`,
  ],
  [
    'what a claim takes',
    `select id from job where account_id = 1 and state = 'waiting' and due_at <= utc_timestamp(3) and priority <= 1 order by priority, id limit 8`,
  ],
  ['orders that were sold twice', 'select count(*) from sale where oversold = 1'],
  ['orders of no item', 'select count(*) from sale where unassigned = 1'],
  ['listings that need a person', `select count(*) from listing where state = 'attention'`],
  ['what is new', `select max(finished_at) from job`],
  ['what runs', `select count(*) from job where state in ('running', 'held')`],
];
test.each(looks)('%s is found by an index', async (_name, query) => {
  const [rows] = await pool().query(`explain ${query}`);
  expect((rows as Plan[]).length).toBeGreaterThan(0);
  const walked = (rows as Plan[]).filter((row) => row.table && !small.has(row.table) && row.table !== 'a');
  for (const { table, type, key } of walked) expect({ table, type, key }).toMatchObject({ key: expect.any(String) });
  expect(walked.filter((row) => row.type === 'ALL')).toEqual([]);
});
