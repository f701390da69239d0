import type { Brief, BriefTopic } from '@/contracts/ideas';
import { TOPIC_WORDS } from './topics';

/** Candidates of each topic in one round. */
const A_ROUND = 8;

/**
 * Answers a brief as assistants do: with a greeting, headings, numbers and bullets that change from topic to topic, doubles, explanations, and one
 * candidate that stands for what is sold. The same brief and round always give the same.
 */
export function answerBrief({ sells, doesNot, never, topics, most }: Brief, round: number): string {
  const product = firstOf(sells);
  const lines = [
    round === 0
      ? `Sure! Here are some words that a business which sells ${product} may want to keep away from:`
      : 'Of course. Here are more of these:',
  ];
  let told = 0;
  for (const [t, topic] of topics.entries()) {
    const candidates = TOPIC_WORDS[topic]
      .slice(A_ROUND * round, A_ROUND * (round + 1))
      .map((word) => word.replace('{p}', product))
      .slice(0, Math.max(0, most - A_ROUND * topics.length * round - told));
    if (candidates.length === 0) continue;
    told += candidates.length;
    lines.push('', headingOf(topic, t), ...written(candidates, t));
  }
  if (told === 0)
    return 'I can not think of any more of these. Tell me more about the business, or choose another topic.';
  if (round === 0) {
    const own = [doesNot, never].flatMap((said) => said.split(/[,;]/u)).map((one) => one.trim());
    const said = own.filter((one) => one !== '');
    if (said.length > 0) lines.push('', `As you said: ${said.join(', ')}`);
    // As if it had not read the brief: what it sells is among what it would stop.
    lines.push('', `- "${product}" (often asked for by people who only look)`);
  }
  lines.push('', 'Please check each of them before you use it. I hope that this helps with your campaigns!');
  return lines.join('\n');
}

function headingOf(topic: BriefTopic, t: number): string {
  const named = topic.charAt(0).toUpperCase() + topic.slice(1);
  return [`**${named}**`, `## ${named}`, `${named}:`][t % 3]!;
}

/** In one of four ways, some of them twice. */
function written(candidates: readonly string[], t: number): string[] {
  const [first] = candidates;
  switch (t % 4) {
    case 0:
      return [...candidates, first!.toUpperCase()].map((word, i) => `${i + 1}. ${word}`);
    case 1:
      return candidates.map((word) => `- "${word}" – people who ask for it rarely buy`);
    case 2:
      return [candidates.join(', '), `${first!}.`];
    default:
      return candidates.map((word, i) => `• ${word}${i % 2 === 0 ? ` (${120 * (i + 1)} searches)` : ','}`);
  }
}

/** The first of the things that are named. */
const firstOf = (sells: string): string =>
  sells
    .split(/[,;.]| and /u)[0]!
    .trim()
    .toLowerCase();
