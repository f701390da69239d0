'use client';

import type { Beside, ChoiceAnswer } from '@/contracts/hand';
import type { TermLine } from '@/contracts/sift';
import { InHand } from '@/screens/frame/in-hand';
import { ReasonForm } from '@/screens/tray/reason-form';
import { Button } from '@/ui/button';
import { Explain } from '@/ui/explain';
import { formatShare } from '@/ui/format';
import { sayEvidence } from '../../table/meter';
import { BesideNeighbours } from '../beside-neighbours';
import { DayLine } from '../day-line';
import { KeywordBid } from '../keyword-bid';
import { Notes } from '@/screens/notes/notes';
import { Options } from './options';
import { ProductInHand } from '../product-in-hand';
import { PullInHand } from '../pull-in-hand';
import { TermFacts } from '../term-facts';
import type { Choice } from './use-choice';
import { VariantsInHand } from './variants-in-hand';
import { ErrorText } from '@/ui/said';

type Props = {
  line: TermLine | undefined;
  choice: Choice;
  days: string | null;
  showsKeywords: boolean;
  onKeywords: () => void;
};

/** The term in hand: what it is, what each choice would do, and the buttons. */
export function ChoiceInHand({ line, choice, days, showsKeywords, onKeywords }: Props) {
  const offered = choice.variants && (
    <VariantsInHand
      answer={choice.variants}
      onTake={(offers) => void choice.takeVariants([...offers])}
      onClose={choice.leaveVariants}
    />
  );
  if (!line) {
    return (
      <InHand>
        {offered}
        <p className="text-table text-soft">Choose a term to see what stopping it would do.</p>
      </InHand>
    );
  }
  const { answer, detail, error } = choice;
  const pull = detail && detail.draftedStops.length > 0 ? <PullInHand detail={detail} days={days} /> : null;
  return (
    <InHand title={line.raw} actions={<Buttons line={line} choice={choice} />}>
      {offered}
      <ErrorText error={error} />
      {detail && (
        <TermFacts detail={detail} days={days} showsKeywords={showsKeywords} onKeywords={onKeywords} />
      )}
      {line.kind === 'query' && <EvidenceInHand line={line} beside={detail?.beside ?? null} />}
      {pull !== null && !isOpenStill(answer) && pull}
      {detail?.ownKeyword && (
        <KeywordBid key={`bid ${detail.id}`} detail={detail} keyword={detail.ownKeyword} />
      )}
      {answer && answer.choices.length > 0 && (
        <div
          className={choice.isStale ? 'opacity-70' : ''}
          data-weighed={choice.isStale ? undefined : `${answer.id} ${choice.chosen.positions.join(',')}`}
        >
          <Options answer={answer} choice={choice} />
          {choice.heldBack && <Force key={choice.text} choice={choice} />}
        </div>
      )}
      {pull !== null && isOpenStill(answer) && pull}
      {detail && <DayLine days={detail.days} changedOn={detail.sinceChange?.on ?? null} />}
      {detail?.kind === 'code' && <ProductInHand detail={detail} />}
      {detail?.kind === 'wordless' && (
        <p className="mt-2 text-table">This term holds no word, so no negative can stop it.</p>
      )}
      {detail && (
        <Notes key={`notes ${detail.id}`} about={{ kind: 'term', about: detail.raw }} notes={detail.notes} />
      )}
    </InHand>
  );
}

/** Whether something of the term is left to stop: it ran in several places, and the tray stops it in some. */
const isOpenStill = (answer: ChoiceAnswer | undefined) =>
  answer?.choices.some(({ places }) => places.some(({ weight }) => weight.terms > 0)) ?? false;

/** How sure it is that the term misses, and whether it or its ad group is to blame; behind a press, by what. */
function EvidenceInHand({ line, beside }: { line: TermLine; beside: Beside | null }) {
  const said = sayEvidence(line.evidence, line);
  if (!line.evidence) return <p className="text-table text-soft">{said}</p>;
  return (
    <p className="text-table text-soft">
      <b className="text-ink">{formatShare(line.evidence.misses)} sure</b> that it misses.{' '}
      {beside && <BesideNeighbours beside={beside} misses={line.evidence.misses} />}{' '}
      <Explain about="the evidence" trigger="Why">
        {said} The evidence counts all days that are kept, since in a window alone most terms have too few
        clicks; from 95 % on it is sure enough to act on.
      </Explain>
    </p>
  );
}

/** A change that is held back can be forced with a written reason, which goes into the ledger. */
function Force({ choice }: { choice: Choice }) {
  return (
    <div className="mt-2 border-l-[3px] border-rust bg-rust/10 px-2.5 py-2 text-table" role="alert">
      <p>{choice.heldBack!.said}</p>
      <ReasonForm onForce={(reason) => void choice.put(reason)} />
    </div>
  );
}

function Buttons({ line, choice }: { line: TermLine; choice: Choice }) {
  const { detail, ofMatch, atPlace, isNoCase, moreClicks } = choice;
  if (line.kind === 'wordless' || line.kind === 'unreported') return null;
  const cannot = isNoCase !== null || ofMatch?.refusal != null || atPlace === undefined || atPlace.isThere;
  const verdict = detail?.verdict.is ?? 'open';
  return (
    <div className="flex flex-wrap items-center gap-1.5">
      {line.kind === 'query' && (
        <Button
          tone="main"
          hotkey="↵"
          disabled={cannot}
          title={isNoCase ?? undefined}
          onClick={() => void choice.put()}
        >
          Put in the tray
        </Button>
      )}
      {line.kind === 'query' && verdict === 'open' && (
        <Button hotkey="o" onClick={() => void choice.keep()}>
          Keep
        </Button>
      )}
      {verdict !== 'open' && (
        <Button onClick={() => void choice.letGo()}>
          {verdict === 'kept' ? 'No longer keep' : 'Take back from aside'}
        </Button>
      )}
      {verdict === 'open' && (
        <span className="flex items-center gap-1 text-table">
          <Button hotkey="l" onClick={() => void choice.setAside()}>
            Set aside
          </Button>
          <label className="flex items-center gap-1 text-small whitespace-nowrap text-soft">
            until
            <input
              type="number"
              min={1}
              max={100_000}
              aria-label="More clicks until it comes back"
              className="w-13 rounded border border-line bg-sheet px-1 py-0.5 text-right text-ink"
              value={moreClicks}
              onChange={(e) => choice.setMoreClicks(Math.max(1, Math.round(Number(e.target.value)) || 1))}
            />
            more clicks
          </label>
        </span>
      )}
    </div>
  );
}
