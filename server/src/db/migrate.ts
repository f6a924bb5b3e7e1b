import { readdir, readFile } from 'node:fs/promises';
import path from 'node:path';
import mysql from 'mysql2/promise';

/** Runs the numbered .sql files that this database has not seen, in order. */
export async function migrate(url: string, folder: string): Promise<string[]> {
  const connection = await mysql.createConnection({ uri: url, multipleStatements: true, charset: 'utf8mb4' });
  try {
    await connection.query(
      'CREATE TABLE IF NOT EXISTS migrations (name VARCHAR(120) PRIMARY KEY, at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP)',
    );
    const [seen] = await connection.query<mysql.RowDataPacket[]>('SELECT name FROM migrations');
    const done = new Set(seen.map((row) => row.name as string));
    const names = (await readdir(folder)).filter((name) => name.endsWith('.sql') && !done.has(name)).sort();
    for (const name of names) {
      await connection.query(await readFile(path.join(folder, name), 'utf8'));
      await connection.query('INSERT INTO migrations (name) VALUES (?)', [name]);
    }
    return names;
  } finally {
    await connection.end();
  }
}
