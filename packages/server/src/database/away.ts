/**
 * What the database answers while it cannot work, by the classes of SQLSTATE (PostgreSQL, appendix A): the connection
 * failed (08), room, memory or connections have run out (53), it starts, stops or broke off a statement (57), its disk
 * fails (58).
 */
const awayClasses = new Set(['08', '53', '57', '58']);
/** And single states: it takes no connections, it only reads, two transactions were in each other's way. */
const awayStates = new Set(['55000', '55P03', '25006', '40001', '40P01']);
const awaySystem = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'EHOSTUNREACH',
  'ENETUNREACH',
  'ENOTFOUND',
  'EAI_AGAIN',
]);
/** What the driver and the pool say, which give no code. */
const awayWords =
  /connection terminated|connection ended|connection error|timeout exceeded when trying to connect|timeout acquiring a connection|query read timeout|pool is probably full|connection is closed/i;

/** The SQLSTATE of an error, or what the system calls it; '' where it has none. The writer of rows wraps some. */
export function sqlState(error: unknown): string {
  if (typeof error !== 'object' || error === null) return '';
  if ('code' in error && typeof error.code === 'string') return error.code;
  return 'nativeError' in error ? sqlState(error.nativeError) : '';
}

/** Whether an error means that the database does not work at present: the same may well work in a moment. */
export function isAway(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  const code = sqlState(error);
  if (awaySystem.has(code) || awayStates.has(code) || awayClasses.has(code.slice(0, 2))) return true;
  if (error instanceof AggregateError && error.errors.length > 0) return error.errors.every(isAway);
  return awayWords.test(error.message);
}
