// FindingMarks.tsx — places that the check found, of the finding that is pointed at.
import { useOutline } from '../store/outline.ts';

/** Screen pixels. */
const RADIUS = 9;
/** More marks than this say no more. */
const MOST = 400;

export function FindingMarks({ pixel }: { pixel: number }) {
  const { findings, pointed } = useOutline();
  const finding = findings?.find(({ kind }) => kind === pointed?.kind);
  if (!finding || !pointed) return null;
  return (
    <g className="pointer-events-none" data-finding={finding.kind}>
      {finding.places.slice(0, MOST).map(([x, y], i) => (
        <g key={`${x} ${y}`} className="stroke-ember" fill="none" strokeWidth={(i === pointed.place ? 3 : 1.5) * pixel}>
          <circle cx={x} cy={y} r={(i === pointed.place ? 1.6 : 1) * RADIUS * pixel} />
        </g>
      ))}
    </g>
  );
}
