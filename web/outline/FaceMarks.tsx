// FaceMarks.tsx — faces between lines, picked by clicking them.
import { outline, useOutline } from '../store/outline.ts';

export function FaceMarks({ pixel }: { pixel: number }) {
  const { faces, picked } = useOutline();
  return (
    <g data-faces={faces.length}>
      {faces.map(({ d, place }, i) => (
        // biome-ignore lint/a11y/noStaticElementInteractions: “Pick all” beside the view does it by keys
        <path
          key={place.join(' ')}
          d={d}
          fillRule="evenodd"
          className={`cursor-pointer stroke-tide ${picked.includes(i) ? 'fill-tide/60' : 'fill-tide/10 hover:fill-tide/30'}`}
          strokeWidth={pixel}
          onClick={() => outline.pick(i)}
        />
      ))}
    </g>
  );
}
