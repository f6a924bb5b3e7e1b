import mysql, {
  type Pool,
  type PoolConnection,
  type ResultSetHeader,
  type RowDataPacket,
} from 'mysql2/promise';

export type Db = Pool | PoolConnection;
type Value = string | number | boolean | null;

/**
 * Every question sees what is committed when it is asked: whoever waited for a lock reads what came of the wait. Only
 * rows that a question names are locked, no gaps between them. docs/decisions/0012.
 */
const SESSION = "SET SESSION tx_isolation = 'READ-COMMITTED', innodb_lock_wait_timeout = 10";

export function openPool(url: string): Pool {
  const pool = mysql.createPool({
    uri: url,
    connectionLimit: 24,
    charset: 'utf8mb4',
    namedPlaceholders: false,
    jsonStrings: false,
  });
  pool.on('connection', (connection) => void connection.query(SESSION));
  return pool;
}

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
  values: readonly (Value | readonly unknown[] | Readonly<Record<string, Value>>)[] = [],
): Promise<ResultSetHeader> {
  const [result] = await db.query<ResultSetHeader>(sql, [...values]);
  return result;
}

/** MariaDB's numbers for two transactions that wait for each other, and for a wait that was too long. */
const CROSSED: ReadonlySet<unknown> = new Set([1213, 1205]);
export const isCrossed = (error: unknown): boolean => CROSSED.has((error as { errno?: unknown }).errno);
/** What the driver and MariaDB call a store that is not there: refused, cut off, going down, or a line that is closed. */
const AWAY: ReadonlySet<unknown> = new Set([
  ...['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT', 'PROTOCOL_CONNECTION_LOST'],
  ...['ER_SERVER_SHUTDOWN', 'ER_CONNECTION_KILLED', 'ER_NORMAL_SHUTDOWN', 'ER_QUERY_INTERRUPTED'],
]);
export function isAway(error: unknown): boolean {
  const { code, fatal, message } = error as { code?: unknown; fatal?: unknown; message?: unknown };
  return AWAY.has(code) || fatal === true || /closed state|connection is closed/i.test(String(message));
}

/** A row like it, by one of its keys, is there already. */
export const isDuplicate = (error: unknown): boolean => (error as { errno?: unknown }).errno === 1062;

const TRIES = 5;

/** Tries again, a few times, what crossed another's transaction. */
async function untilUncrossed<T>(work: () => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await work();
    } catch (error) {
      if (!isCrossed(error) || attempt === TRIES) throw error;
      await new Promise((resolve) => setTimeout(resolve, attempt * (20 + Math.random() * 60)));
    }
  }
}

/** All of it, or nothing. Where it crossed another it is done anew, a few times: `work` may run more than once. */
export const transaction = <T>(pool: Pool, work: (db: PoolConnection) => Promise<T>): Promise<T> =>
  untilUncrossed(() => transactionOnce(pool, work));

/** The same for work that reaches outside, and is not to be done twice. */
export async function transactionOnce<T>(pool: Pool, work: (db: PoolConnection) => Promise<T>): Promise<T> {
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
export const rehearse = <T>(pool: Pool, work: (db: PoolConnection) => Promise<T>): Promise<T> =>
  untilUncrossed(async () => {
    const connection = await pool.getConnection();
    try {
      await connection.beginTransaction();
      return await work(connection);
    } finally {
      await connection.rollback().catch(() => connection.destroy());
      connection.release();
    }
  });

/** A JSON column as MariaDB hands it over: text, or already read by the driver. */
export const json = <T>(value: unknown): T => (typeof value === 'string' ? JSON.parse(value) : value) as T;
