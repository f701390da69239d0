import { expect, test } from 'vitest';
import { isAway } from './away';

const withCode = (code: string, message = 'it failed') => Object.assign(new Error(message), { code });

test.each([
  withCode('ECONNREFUSED'),
  withCode('57P01', 'terminating connection due to administrator command'),
  withCode('57P03', 'the database system is starting up'),
  withCode('08006'),
  new Error('Connection terminated unexpectedly'),
  new Error('connect ECONNREFUSED 127.0.0.1:4181'), // as it comes from a thread
  new Error('Knex: Timeout acquiring a connection. The pool is probably full.'),
  new AggregateError([withCode('ECONNREFUSED'), withCode('ECONNREFUSED')]),
])('the database is away: %s', (error) => expect(isAway(error)).toBe(true));

test.each([
  withCode('23505', 'duplicate key'),
  withCode('42P01'),
  new Error('Something else'),
  withCode('ENOENT', 'a file that was brought is gone'),
  'a text',
  null,
])('it answers: %s', (error) => expect(isAway(error)).toBe(false));
