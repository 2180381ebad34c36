import { spawnSync } from 'node:child_process';
import { resolve } from 'node:path';
import mysql from 'mysql2/promise';
import { stack } from './stack';

const root = resolve(__dirname, '..', '..');

/** An empty database of its own beside the stack's, for a shop of an earlier release. */
export async function emptyShop(name: string): Promise<mysql.Connection> {
  const connection = await mysql.createConnection({
    host: '127.0.0.1',
    port: stack.databasePort,
    user: 'netting',
    password: stack.databasePassword,
    multipleStatements: true,
    timezone: 'Z',
  });
  await connection.query(`drop database if exists ${name}; create database ${name} character set utf8mb4; use ${name}`);
  return connection;
}

/** Brings it up to date as the start command does; what went wrong is returned. */
export const migrateShop = (name: string): string =>
  spawnSync(process.execPath, ['--import', 'tsx', resolve(root, 'src', 'db', 'migrate.ts')], {
    cwd: root,
    env: { ...process.env, NETTING_DB_NAME: name },
    encoding: 'utf8',
  }).stderr;
