import type { Gather } from '@/contracts/research';
import { Button } from '@/ui/button';

/** What each way of gathering asks for; it is told what to gather. */
export type WayProps = { onGather: (asked: Gather) => void; isGathering: boolean };

export function GatherButton({ isGathering, onPress }: { isGathering: boolean; onPress?: () => void }) {
  return (
    <Button
      tone="main"
      className="self-start"
      type={onPress ? 'button' : 'submit'}
      disabled={isGathering}
      onClick={onPress}
    >
      {isGathering ? 'Gathering…' : 'Gather'}
    </Button>
  );
}
