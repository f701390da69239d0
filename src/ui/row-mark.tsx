/**
 * The mark of a row of a table. No control of its own: the table listens for clicks on `data-mark`, and the keys reach it,
 * so that rows are light enough to scroll by.
 */
export function RowMark({ isMarked }: { isMarked: boolean }) {
  return (
    <span
      role="button"
      data-mark
      aria-pressed={isMarked}
      aria-label="Mark"
      className={`block size-4 cursor-pointer rounded border text-center text-key leading-[13px] font-bold ${isMarked ? 'border-pine bg-pine text-on-pine' : 'border-soft/60'}`}
    >
      {isMarked ? '✓' : ''}
    </span>
  );
}

/** The mark at the head of a table: all, some or none of its rows. */
export function HeadMark({ marked, onMark }: { marked: boolean | 'mixed'; onMark: () => void }) {
  return (
    <button
      type="button"
      aria-pressed={marked}
      aria-label="Mark all that the filters show"
      title="Mark all that the filters show (Ctrl A)"
      tabIndex={-1} // Ctrl A does it, too
      className="block size-4 rounded border border-soft/60 text-key leading-[13px] font-bold text-ink"
      onClick={onMark}
    >
      {marked === true ? '✓' : marked === 'mixed' ? '–' : ''}
    </button>
  );
}
