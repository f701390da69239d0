import { encode } from 'uqr';

/** A text as a square that a camera reads. */
export function QrCode({ text, says }: { text: string; says: string }) {
  const { data, size } = encode(text, { border: 2 });
  const dark = data.flatMap((row, y) => row.flatMap((isDark, x) => (isDark ? [`M${x} ${y}h1v1h-1z`] : [])));
  return (
    <svg role="img" aria-label={says} viewBox={`0 0 ${size} ${size}`} className="size-44 bg-white">
      <path d={dark.join('')} fill="black" shapeRendering="crispEdges" />
    </svg>
  );
}
