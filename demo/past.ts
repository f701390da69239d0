import type { MatchType } from '@/core';
import type { Fault } from '@/contracts/platform';
import { PEOPLE } from './larkfell';

const [MAREN, TOBIAS, ILSE] = PEOPLE as [string, string, string];

/** What is stopped, and where: in the whole account, or in a list or a campaign by its name. */
type PastStop = {
  text: string;
  match: MatchType;
  in: { list: string } | { campaign: string } | 'account';
  /** stops protected terms in spite of it, for this reason */
  forcedBecause?: string;
};

/** One tray of the past. */
type PastTray = {
  by: string;
  why: string;
  stops: readonly PastStop[];
  /** so many of the costliest terms without return are stopped exactly in the whole account besides */
  worst: number;
  /** takes back the stop with this text that was sent before */
  undoes?: string;
  /** what goes wrong on the platform while it is sent */
  fault?: Fault;
};

/** What happened in a week, after its report had come. */
export type PastWeek = {
  notes?: readonly { by: string; about: string; body: string }[];
  /** terms that nothing may stop from then on */
  kept?: readonly { by: string; raw: string; note: string }[];
  tray?: PastTray;
};

const inList = (list: string, match: MatchType, ...texts: string[]): PastStop[] =>
  texts.map((text) => ({ text, match, in: { list } }));
const inCampaign = (campaign: string, match: MatchType, ...texts: string[]): PastStop[] =>
  texts.map((text) => ({ text, match, in: { campaign } }));

/** How Larkfell worked with Gate Post since it began, by account and week; the first week is 1. */
export const PAST: Readonly<Record<string, { every: number; weeks: Readonly<Record<number, PastWeek>> }>> = {
  'larkfell-web': {
    every: 1,
    weeks: {
      2: {
        kept: [
          { by: ILSE, raw: 'beekeeping starter kit', note: 'our best seller in spring' },
          { by: MAREN, raw: 'bee hive for sale', note: 'whoever asks so buys' },
        ],
        notes: [
          {
            by: ILSE,
            about: 'bee hive',
            body: 'Our catalogue word: whatever happens, this stays open in Hives.',
          },
        ],
      },
      3: {
        tray: {
          by: MAREN,
          why: 'they look for work, not for hives',
          stops: inList('Work & careers', 'broad', 'jobs', 'salary', 'volunteer'),
          worst: 8,
        },
      },
      4: {
        notes: [
          {
            by: TOBIAS,
            about: 'beekeeping course',
            body: 'Courses fill by themselves until May; no more budget.',
          },
        ],
      },
      6: {
        tray: {
          by: TOBIAS,
          why: 'films, songs and costumes again',
          stops: [
            ...inList('Leisure & media', 'broad', 'movie', 'song', 'trailer', 'costume', 'halloween'),
            ...inCampaign('Hives · Starter', 'broad', 'documentary', 'removal'),
          ],
          worst: 6,
          fault: 'refuses some',
        },
      },
      8: {
        tray: {
          by: MAREN,
          why: 'people who build their own, or want it for nothing',
          stops: [
            ...inList('Free & do-it-yourself', 'broad', 'diy', 'plans', 'build'),
            {
              ...{ text: 'free', match: 'phrase', in: { campaign: 'Clothing · Suits' } },
              forcedBecause: 'in September whoever asked for something free bought nothing',
            },
          ],
          worst: 4,
          fault: 'has another user',
        },
        notes: [
          {
            by: ILSE,
            about: 'bee suit free delivery',
            body: 'Is this one not ours? Delivery is free over 80.',
          },
        ],
      },
      10: {
        tray: {
          by: TOBIAS,
          why: 'they want to rent, and we sell',
          stops: [
            ...inList('Second hand', 'broad', 'hire', 'rent'),
            {
              ...{ text: 'glass', match: 'phrase', in: { campaign: 'Extraction · Manual' } },
              forcedBecause: 'whoever furnishes a kitchen keeps no bees',
            },
          ],
          worst: 5,
          undoes: 'free',
        },
        notes: [
          {
            by: TOBIAS,
            about: 'bee suit free delivery',
            body: 'It is ours: these buy. “free” is taken back.',
          },
        ],
      },
    },
  },
  'larkfell-market': {
    every: 2, // its reports came every other week
    weeks: {
      6: { tray: { by: MAREN, why: 'paid for weeks and nothing came', stops: [], worst: 12 } },
      10: { tray: { by: ILSE, why: 'paid for weeks and nothing came', stops: [], worst: 10 } },
    },
  },
};
