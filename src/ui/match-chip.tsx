/** A match type beside the text that it belongs to. */
export function MatchChip({ match }: { match: string }) {
  return <span className="rounded border border-line bg-sheet px-[3px] text-key text-soft">{match}</span>;
}
