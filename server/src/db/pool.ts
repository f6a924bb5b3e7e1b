import mysql, {
  type Pool,
  type PoolConnection,
  type ResultSetHeader,
  type RowDataPacket,
} from 'mysql2/promise';

export type Db = Pool | PoolConnection;
type Value = string | number | boolean | null;

export const openPool = (url: string): Pool =>
  mysql.createPool({
    uri: url,
    connectionLimit: 12,
    charset: 'utf8mb4',
    namedPlaceholders: false,
    jsonStrings: false,
  });

/** Rows of a plain SQL question, every value a placeholder. */
export async function rows<T>(
  db: Db,
  sql: string,
  values: readonly (Value | readonly Value[])[] = [],
): Promise<T[]> {
  const [found] = await db.query<RowDataPacket[]>(sql, [...values]);
  return found as T[];
}

export async function one<T>(db: Db, sql: string, values: readonly Value[] = []): Promise<T | null> {
  return (await rows<T>(db, sql, values))[0] ?? null;
}

export async function run(
  db: Db,
  sql: string,
  values: readonly (Value | readonly unknown[])[] = [],
): Promise<ResultSetHeader> {
  const [result] = await db.query<ResultSetHeader>(sql, [...values]);
  return result;
}

/** All of it, or nothing. */
export async function transaction<T>(pool: Pool, work: (db: PoolConnection) => Promise<T>): Promise<T> {
  const connection = await pool.getConnection();
  try {
    await connection.beginTransaction();
    const result = await work(connection);
    await connection.commit();
    return result;
  } catch (error) {
    // A connection that is gone has rolled back by itself; what went wrong first is what is told.
    await connection.rollback().catch(() => connection.destroy());
    throw error;
  } finally {
    connection.release();
  }
}

/** All of it done and seen, and then nothing of it: what a change would do, found out by doing it. */
export async function rehearse<T>(pool: Pool, work: (db: PoolConnection) => Promise<T>): Promise<T> {
  const connection = await pool.getConnection();
  try {
    await connection.beginTransaction();
    return await work(connection);
  } finally {
    await connection.rollback();
    connection.release();
  }
}

/** A JSON column as MariaDB hands it over: text, or already read by the driver. */
export const json = <T>(value: unknown): T => (typeof value === 'string' ? JSON.parse(value) : value) as T;
