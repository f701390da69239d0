/** SQLSTATE of a server that ends, starts, or takes no more connections; class 08 is of connections. */
const AWAY_STATES = /^(08...|57P0[123]|53300)$/;
const AWAY_CODES = new Set(['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT', 'ENOTFOUND']);
/** Words of the driver and of the pool, which give no code; and of errors that lost theirs on the way from a thread. */
const AWAY_WORDS = new RegExp(
  [
    '^(Connection terminated|timeout expired|Client has encountered a connection error|Knex: Timeout acquiring)',
    '^connect (ECONNREFUSED|ETIMEDOUT)',
    'terminating connection due to|the database system is (starting up|shutting down)',
  ].join('|'),
);

/** Whether an error means that the database does not answer: what was asked may be asked again later. */
export function isAway(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  const code = 'code' in error && typeof error.code === 'string' ? error.code : '';
  if (AWAY_STATES.test(code) || AWAY_CODES.has(code) || AWAY_WORDS.test(error.message)) return true;
  return error instanceof AggregateError && error.errors.some(isAway);
}
