// StrokeStyle.tsx — width, joins, ends and dashes of the chosen strokes, in a sentence.
import type { OutlineShape } from '../../../core/index.ts';
import { CAPS, JOINS, type Source, type Stroke } from '../../../core/index.ts';
import { Choice } from '../../controls/Choice.tsx';
import { Value } from '../../controls/Value.tsx';
import { act, actAll } from '../../store/outline.ts';
import { useDocumentPart } from '../../store/project.ts';

const JOIN_WORDS: Record<Stroke['join'], string> = { round: 'round', mitre: 'sharp', bevel: 'cut off' };
const CAP_WORDS: Record<Stroke['cap'], string> = { round: 'round', butt: 'flat', square: 'square' };

interface StrokeStyleProps {
  source: Source;
  /** Shapes that are strokes; the first one's style is shown. */
  strokes: readonly OutlineShape[];
}

export function StrokeStyle({ source, strokes }: StrokeStyleProps) {
  const unit = useDocumentPart((document) => document.unit);
  const shown = strokes[0]!.stroke!;
  const [dash = 0, gap = dash] = shown.dashes;
  const change = (part: Partial<Stroke>, gesture: string | null = null) => {
    const styled = strokes.map(({ id, stroke }) => {
      const next = { ...stroke!, ...part };
      return { do: 'restyle' as const, shapes: [id], stroke: { ...next, dashes: [...next.dashes] } };
    });
    const [first] = styled;
    // Strokes that were alike stay alike, and are one edit.
    const areAlike = strokes.every(({ stroke }) => JSON.stringify(stroke) === JSON.stringify(shown));
    if (first && areAlike) void act({ ...first, shapes: strokes.map(({ id }) => id) }, gesture);
    else void actAll(styled);
  };
  const length = (v: number) => Number((v * source.scale).toPrecision(6));
  return (
    <>
      ,{' '}
      <Value
        label="Width of the stroke"
        value={length(shown.width)}
        unit={unit}
        min={1e-6}
        step={length(shown.width) / 10}
        onChange={(v, gesture) => change({ width: v / source.scale }, gesture)}
      />{' '}
      wide, with{' '}
      <Choice
        label="Corners of the stroke"
        value={shown.join}
        options={JOINS.map((join) => [join, JOIN_WORDS[join]] as const)}
        onChange={(join) => change({ join })}
      />{' '}
      corners and{' '}
      <Choice
        label="Ends of the stroke"
        value={shown.cap}
        options={CAPS.map((cap) => [cap, CAP_WORDS[cap]] as const)}
        onChange={(cap) => change({ cap })}
      />{' '}
      ends,{' '}
      <Choice
        label="Dashes of the stroke"
        value={shown.dashes.length > 0 ? 'dashed' : 'whole'}
        options={[
          ['whole', 'unbroken'],
          ['dashed', 'dashed'],
        ]}
        onChange={(next) => change({ dashes: next === 'dashed' ? [3 * shown.width, 2 * shown.width] : [] })}
      />
      {shown.dashes.length > 0 && (
        <>
          :{' '}
          <Value
            label="Length of a dash"
            value={length(dash)}
            unit={unit}
            step={length(shown.width) / 2}
            onChange={(v, gesture) => change({ dashes: [v / source.scale, gap] }, gesture)}
          />{' '}
          on,{' '}
          <Value
            label="Gap between dashes"
            value={length(gap)}
            unit={unit}
            step={length(shown.width) / 2}
            onChange={(v, gesture) => change({ dashes: [dash, v / source.scale] }, gesture)}
          />{' '}
          off
        </>
      )}
    </>
  );
}
