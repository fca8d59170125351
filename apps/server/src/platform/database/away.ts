/** SQLSTATE classes and codes that mean: the database is away, starting, stopping, or full of connections. It comes back. */
const AWAY_STATES = /^(08|57P0[1-5]|53300|58030)/;
const AWAY_ERRORS = new Set(['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT', 'ENOTFOUND', 'EHOSTUNREACH']);
/** What the driver says without a code. */
const AWAY_WORDS =
  /Connection terminated|timeout exceeded when trying to connect|Client has encountered a connection error|Query read timeout|not currently accepting connections/;

interface Coded {
  readonly code?: unknown;
  readonly message?: unknown;
  readonly driverError?: unknown;
  readonly cause?: unknown;
}

/** Whether an error means that the database cannot be reached now: whoever asked should try again in a moment. */
export function isAway(error: unknown): boolean {
  if (typeof error !== 'object' || error === null) return false;
  const { code, message, driverError, cause } = error as Coded;
  return (
    (typeof code === 'string' && (AWAY_STATES.test(code) || AWAY_ERRORS.has(code))) ||
    (typeof message === 'string' && AWAY_WORDS.test(message)) ||
    (driverError !== undefined && driverError !== error && isAway(driverError)) ||
    (cause !== undefined && isAway(cause))
  );
}
