import type { Brief, IdeasAnswer, SourceFaults } from '@/contracts/ideas';

/** The port to an idea source. Every call may fail with OutsideTrouble; nothing of it changes anything. */
export type IdeaSource = {
  /** The locations and languages for which it has ideas. */
  about(): Promise<{ locations: string[]; languages: string[] }>;
  /** A page of ideas. @param after where the page before ended; null for the first */
  ideas(
    asked: { stems: readonly string[]; location: string | null; language: string; from: IdeasFrom },
    after: string | null,
  ): Promise<IdeasAnswer>;
  /** What people go on to type. */
  completions(typed: string): Promise<string[]>;
  /** Candidates for negatives, as a text that is to be cleaned. @param round from 0; each further one asks for more */
  candidates(brief: Brief, round: number): Promise<string>;
  /** What is to go wrong there, where it is a stand-in. @param faults in place of what is on; null only asks */
  faults(faults: SourceFaults | null): Promise<SourceFaults>;
};

/** From which end ideas come. */
export type IdeasFrom = 'most related' | 'least related';
