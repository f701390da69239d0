'use client';

import { useState } from 'react';
import type { ChoiceAnswer, TermLine } from '@/contracts/sift';
import { InHand } from '@/screens/frame/in-hand';
import { Button } from '@/ui/button';
import { sayEvidence } from './meter';
import { Options } from './options';
import type { Choice } from './use-choice';
import { VariantsInHand } from './variants-in-hand';
import { WhereItRan } from './where-it-ran';

/** The term in hand: what it is, what each choice would do, and the buttons. */
export function ChoiceInHand({ line, choice }: { line: TermLine | undefined; choice: Choice }) {
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
        <p className="text-[13px] text-soft">Choose a term to see what stopping it would do.</p>
      </InHand>
    );
  }
  const { answer, error } = choice;
  return (
    <InHand
      title={<span className="break-words">{line.raw}</span>}
      actions={<Buttons line={line} choice={choice} />}
    >
      {offered}
      {error && <p className="text-[13px] text-rust">{error.message}</p>}
      {answer && <WhereItRan answer={answer} />}
      {line.kind === 'query' && (
        <p className="text-[13px] text-soft">{sayEvidence(line.evidence, line.clicks)}</p>
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
      {answer && answer.kind !== 'query' && <NoWords kind={answer.kind} />}
    </InHand>
  );
}

/** A change that is held back can be forced with a written reason, which goes into the ledger. */
function Force({ choice }: { choice: Choice }) {
  const [reason, setReason] = useState('');
  return (
    <form
      className="mt-2 border-l-[3px] border-rust bg-rust/10 px-2.5 py-2 text-[13px]"
      role="alert"
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim().length >= 3) void choice.put(reason.trim());
      }}
    >
      <p>{choice.heldBack!.said}</p>
      <label className="mt-1 block">
        Reason to force it
        <input
          className="mt-0.5 w-full rounded border border-line bg-sheet px-1.5 py-0.5"
          value={reason}
          onChange={(e) => setReason(e.target.value)}
        />
      </label>
      <button
        type="submit"
        disabled={reason.trim().length < 3}
        className="mt-1.5 rounded border border-rust px-2 font-semibold text-rust disabled:opacity-50"
      >
        Force it, with this reason
      </button>
    </form>
  );
}

function NoWords({ kind }: { kind: ChoiceAnswer['kind'] }) {
  const text =
    kind === 'code'
      ? 'This is a product code. It can not be a keyword negative: exclude the product on the platform instead.'
      : 'This term holds no word, so no negative can stop it.';
  return <p className="mt-2 text-[13px]">{text}</p>;
}

function Buttons({ line, choice }: { line: TermLine; choice: Choice }) {
  if (line.words.length === 0) return null;
  const cannot = choice.ofMatch?.refusal != null || choice.atPlace === undefined || choice.atPlace.isThere;
  return (
    <div className="flex flex-wrap gap-1.5">
      <Button tone="main" hotkey="↵" disabled={cannot} onClick={() => void choice.put()}>
        Put in the tray
      </Button>
      {choice.answer?.isKept ? (
        <Button onClick={() => void choice.letGo()}>No longer keep</Button>
      ) : (
        <Button hotkey="o" onClick={() => void choice.keep()}>
          Keep
        </Button>
      )}
    </div>
  );
}
