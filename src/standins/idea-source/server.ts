import { readFileSync, writeFileSync } from 'node:fs';
import type { IncomingMessage, Server } from 'node:http';
import { setTimeout as sleep } from 'node:timers/promises';
import * as v from 'valibot';
import {
  BriefRequestSchema,
  IdeasQuerySchema,
  SourceFaultsSchema,
  VocabularySchema,
  type SourceFaults,
  type Vocabulary,
} from '@/contracts/ideas';
import { HungUp, readBody, readQuery, Refused, serveStandin } from '../http';
import { answerBrief } from './answer-brief';
import { complete, findIdeas } from './find-ideas';

const LARGEST_BODY = 64 * 1024 * 1024; // the vocabulary of a large demo
/** Seconds after which a caller may come again who is told to slow down. */
const SLOW_DOWN = 2;

/**
 * The stand-in as an HTTP server; the caller makes it listen.
 * @param file keeps the vocabulary with which it is seeded
 * @param slowMs how long it takes to answer while it is slow
 */
export function createIdeaSource(file: string, slowMs = 3_000): Server {
  let vocabulary = readKept(file);
  const faults = new Map<SourceFaults['faults'][number]['fault'], number>();
  const left = (): SourceFaults => ({ faults: [...faults].map(([fault, times]) => ({ fault, times })) });
  const take = (fault: SourceFaults['faults'][number]['fault']): boolean => {
    const times = faults.get(fault);
    if (times === undefined) return false;
    if (times === 1) faults.delete(fault);
    else faults.set(fault, times - 1);
    return true;
  };

  async function answer(request: IncomingMessage): Promise<unknown> {
    const url = new URL(request.url ?? '/', 'http://stand-in');
    const route = `${request.method} ${url.pathname}`;
    switch (route) {
      case 'GET /health':
        return { name: 'stand-in idea source' };
      case 'PUT /vocabulary':
        vocabulary = await readBody(request, VocabularySchema, LARGEST_BODY);
        writeFileSync(file, JSON.stringify(vocabulary));
        return {};
      case 'GET /faults':
        return left();
      case 'PUT /faults':
        faults.clear();
        for (const { fault, times } of (await readBody(request, SourceFaultsSchema, LARGEST_BODY)).faults)
          faults.set(fault, times);
        return left();
      case 'GET /source':
        return { locations: vocabulary.locations, languages: ['en'] };
    }
    if (take('asks to slow down')) throw new Refused(429, 'Too many requests in a short time.', SLOW_DOWN);
    if (take('fails')) throw new Refused(500, 'Something broke here.');
    if (take('hangs up')) throw new HungUp();
    if (take('is slow')) await sleep(slowMs);
    switch (route) {
      case 'GET /ideas': {
        const { stems, location, language, from, after } = readQuery(url, IdeasQuerySchema);
        if (language !== 'en') throw new Refused(400, `There are no ideas in the language ${language}.`);
        if (location !== undefined && !vocabulary.locations.includes(location))
          throw new Refused(400, `The location ${location} is not known here.`);
        return findIdeas(vocabulary, { stems: stems.split(','), location, from, after });
      }
      case 'GET /completions':
        return { completions: complete(vocabulary, url.searchParams.get('typed') ?? '') };
      case 'POST /brief': {
        const { brief, round } = await readBody(request, BriefRequestSchema, LARGEST_BODY);
        return { text: answerBrief(brief, round) };
      }
      default:
        throw new Refused(404, `There is nothing at ${route}.`);
    }
  }
  return serveStandin(answer);
}

function readKept(file: string): Vocabulary {
  let kept: string;
  try {
    kept = readFileSync(file, 'utf8');
  } catch {
    return { phrases: [], locations: [] }; // never seeded
  }
  return v.parse(VocabularySchema, JSON.parse(kept));
}
