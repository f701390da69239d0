/** Icons of states: a gate seen from above. Told apart by shape; a word always stands beside them. */
export type StateIconKind = 'stopped' | 'hurting' | 'drafted' | 'open' | 'warned' | 'kept' | 'post';

const POSTS = 'M5 3v10M13 3v10';
const PATHS: Record<StateIconKind, { d: string; dash?: string; dot?: boolean }> = {
  stopped: { d: `${POSTS}M2 8h14` },
  hurting: { d: `${POSTS}M2 8h14M6 4l6 8` },
  drafted: { d: `${POSTS}M2 8h14`, dash: '2 1.6' },
  open: { d: `${POSTS}M2 8h1.5M14.5 8H16` },
  warned: { d: `${POSTS}M2 8h1.5M14.5 8H16M7 4.5l4 7` },
  kept: { d: POSTS, dot: true },
  post: { d: 'M9 3v10' },
};
const TONES: Record<StateIconKind, string> = {
  stopped: 'text-timber',
  hurting: 'text-rust',
  drafted: 'text-pine',
  open: 'text-soft',
  warned: 'text-rust',
  kept: 'text-moss',
  post: 'text-soft',
};

/** @param label what the icon says; without one it is decoration beside a word that says it */
export function StateIcon({
  kind,
  label,
  className = '',
}: {
  kind: StateIconKind;
  label?: string;
  className?: string;
}) {
  const { d, dash, dot } = PATHS[kind];
  return (
    <svg
      viewBox="0 0 18 16"
      width="18"
      height="16"
      className={`inline-block shrink-0 align-[-3px] ${TONES[kind]} ${className}`}
      role={label ? 'img' : undefined}
      aria-label={label}
      aria-hidden={label ? undefined : true}
    >
      <path
        d={d}
        stroke="currentColor"
        strokeWidth="1.6"
        fill="none"
        strokeDasharray={dash}
        strokeLinecap="round"
      />
      {dot && <circle cx="9" cy="8" r="1.7" fill="currentColor" />}
    </svg>
  );
}

/** The logo of Gate Post. */
export function Logo() {
  return (
    <svg viewBox="0 0 20 20" width="20" height="20" aria-hidden className="text-timber">
      <path
        d="M5 2v16M15 2v16M2 7h16M2 12h16"
        stroke="currentColor"
        strokeWidth="1.9"
        strokeLinecap="round"
      />
    </svg>
  );
}
