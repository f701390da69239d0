import type { IncomingMessage, Server } from 'node:http';
import { simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';
import * as v from 'valibot';
import { Page, readBody, Refused, serveStandin } from '../http';
import { pageOf, type Received } from './page';

const LARGEST_BODY = 1024 * 1024;
/** Older ones go. */
const MOST_KEPT = 500;

const FaultsSchema = v.object({ times: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(1_000)) });

/** The stand-in inbox: it takes mail and web hooks, and shows them; it refuses some when it is told to. */
export function createInbox(): { smtp: SMTPServer; http: Server } {
  const received: Received[] = [];
  let failing = 0;
  const takeFault = () => failing > 0 && failing-- > 0;
  const keep = (one: Received) => {
    received.unshift(one);
    received.length = Math.min(received.length, MOST_KEPT);
  };
  const smtp = new SMTPServer({
    ...{ disabledCommands: ['AUTH', 'STARTTLS'], size: LARGEST_BODY, banner: 'stand-in inbox' },
    onData(stream, { envelope }, done) {
      simpleParser(stream).then(
        ({ subject = '', text = '', messageId = '' }) => {
          if (takeFault()) return done(Object.assign(new Error('try again later'), { responseCode: 451 }));
          const to = envelope.rcptTo.map(({ address }) => address).join(', ');
          keep({ by: 'mail', at: new Date().toISOString(), to, id: messageId, subject, text });
          done();
        },
        (error: unknown) => done(error as Error),
      );
    },
  });

  async function answer(request: IncomingMessage): Promise<unknown> {
    const { pathname } = new URL(request.url ?? '/', 'http://stand-in');
    switch (`${request.method} ${pathname}`) {
      case 'GET /health':
        return { name: 'stand-in inbox' };
      case 'GET /':
        return new Page(pageOf(received));
      case 'GET /received':
        return { received };
      case 'DELETE /received':
        received.length = 0;
        return {};
      case 'PUT /faults':
        failing = (await readBody(request, FaultsSchema, LARGEST_BODY)).times;
        return { times: failing };
    }
    if (request.method === 'POST' && pathname.startsWith('/hooks/')) {
      const body = await readBody(request, v.unknown(), LARGEST_BODY);
      if (takeFault()) throw new Refused(503, 'Not now.');
      const signature = String(request.headers['gatepost-signature'] ?? '');
      keep({ by: 'hook', at: new Date().toISOString(), path: pathname, signature, body });
      return {};
    }
    throw new Refused(404, 'The stand-in inbox knows no such address.');
  }
  return { smtp, http: serveStandin(answer) };
}
