import type { Connection, RowDataPacket } from 'mysql2/promise';

type Column = { name: string; type: string; needed: boolean; length: number | null };

/** The columns of a table that a row may be written with, as the table stands now. */
export async function columnsOf(connection: Connection, table: string): Promise<Column[]> {
  const [rows] = await connection.query<RowDataPacket[]>(
    `select column_name as name, data_type as type, character_maximum_length as length,
       (is_nullable = 'NO' and column_default is null and extra not like '%auto_increment%') as needed
     from information_schema.columns
     where table_schema = database() and table_name = ? and (generation_expression is null or generation_expression = '')
     order by ordinal_position`,
    [table],
  );
  return rows.map((row) => ({
    name: String(row.name),
    type: String(row.type),
    needed: Number(row.needed) === 1,
    length: row.length === null ? null : Number(row.length),
  }));
}

/** A value that a column takes, another one for another number. */
function anyValue({ type, length }: Column, number: number): unknown {
  if (type === 'longtext') return '{}';
  if (/char|text/.test(type)) return `x${number}`.slice(0, length ?? 20);
  if (/date|time/.test(type)) return '2026-01-02 03:04:05';
  if (/blob|binary/.test(type)) return Buffer.from([number % 256]);
  return type === 'tinyint' ? 1 : number;
}

/** Writes a row with what has to be said, and nothing else. */
export async function writeAnyRow(
  connection: Connection,
  table: string,
  columns: Column[],
  number: number,
): Promise<void> {
  const needed = columns.filter((one) => one.needed);
  const names = needed.map((one) => `\`${one.name}\``).join(', ');
  await connection.query(`insert into \`${table}\` (${names}) values (${needed.map(() => '?').join(', ')})`, [
    ...needed.map((one) => anyValue(one, number)),
  ]);
}

export async function tablesOf(connection: Connection): Promise<string[]> {
  const [rows] = await connection.query<RowDataPacket[]>(
    `select table_name as name from information_schema.tables where table_schema = database() and table_type = 'BASE TABLE'
       and table_name not like '\\_\\_%' order by table_name`,
  );
  return rows.map((row) => String(row.name));
}
