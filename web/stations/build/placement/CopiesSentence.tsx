// CopiesSentence.tsx — copies of a thing along a line or on a ring; all are one mesh.
import { type Copies, MOST_COPIES } from '../../../../core/index.ts';
import { Choice } from '../../../controls/Choice.tsx';
import { Sentence } from '../../../controls/Panel.tsx';
import { Tick } from '../../../controls/Tick.tsx';
import { Value } from '../../../controls/Value.tsx';
import { place, startCopies, type Thing } from '../../../store/placing.ts';
import { useDocumentPart } from '../../../store/project.ts';
import type { AtLeastOne } from '../recipe/several.tsx';

interface CopiesProps {
  things: AtLeastOne<Thing>;
  unit: string;
  step: number;
}

const AXES = ['x', 'y', 'z'] as const;
const WAYS = ['across', 'up', 'forward'] as const;

/** Sentences read as the first one's. */
export function CopiesSentence({ things, unit, step }: CopiesProps) {
  const { copies } = things[0].placement;
  const layers = useDocumentPart((document) => document.layers);
  const set = (next: Copies | undefined, gesture: string | null = null) =>
    place(things, ({ placement: { copies: _, ...rest } }) => (next ? { ...rest, copies: next } : rest), gesture);
  const point = (label: string, at: readonly number[], to: (at: [number, number, number]) => Copies) =>
    WAYS.map((way, k) => (
      <span key={way}>
        {k === 2 && 'and '}
        <Value
          label={`${label} ${way}`}
          value={at[k]!}
          unit={unit}
          step={step}
          min={-1e6}
          onChange={(v, g) => set(to(at.map((old, i) => (i === k ? v : old)) as [number, number, number]), g)}
        />{' '}
        {way}
        {k < 2 ? ', ' : ''}
      </span>
    ));
  return (
    <>
      <Sentence>
        It stands there{' '}
        <Choice
          label="Copies"
          value={copies?.along ?? 'none'}
          options={[
            ['none', 'once'],
            ['line', 'in copies along a line'],
            ['ring', 'in copies on a ring'],
            ['path', 'in copies along a path'],
          ]}
          onChange={(along) => set(along === 'none' ? undefined : startCopies(things[0], along))}
        />
        {copies && (
          <>
            :{' '}
            <Value
              label="Number of copies"
              value={copies.count}
              step={1}
              min={2}
              max={MOST_COPIES}
              onChange={(v, g) => set({ ...copies, count: Math.round(v) }, g)}
            />{' '}
            of it,{' '}
          </>
        )}
        {copies?.along === 'line' && (
          <>each {point('Step', copies.step, (step) => ({ ...copies, step }))} from the one before</>
        )}
        {copies?.along === 'ring' && (
          <>
            over{' '}
            <Value
              label="Span of the ring"
              value={copies.span}
              unit="°"
              step={15}
              min={-360}
              max={360}
              onChange={(span, g) => set({ ...copies, span }, g)}
            />{' '}
            about the{' '}
            <Choice
              label="Axis of the ring"
              value={copies.axis}
              options={AXES.map((axis) => [axis, axis] as const)}
              onChange={(axis) => set({ ...copies, axis })}
            />{' '}
            axis through {point('Ring', copies.centre, (centre) => ({ ...copies, centre }))}
          </>
        )}
        {copies?.along === 'path' && (
          <>
            from end to end of the longest outline or line of{' '}
            <Choice
              label="Layer of the path"
              value={copies.layer}
              options={[
                ...(layers.some(({ id }) => id === copies.layer)
                  ? []
                  : [[copies.layer, 'a layer that is gone'] as const]),
                ...layers.filter(({ id }) => id !== things[0].id).map(({ id, name }) => [id, name] as const),
              ]}
              onChange={(layer) => set({ ...copies, layer })}
            />
          </>
        )}
        .
      </Sentence>
      {copies && copies.along !== 'line' && (
        <Tick
          label={`Each turns with the ${copies.along}`}
          isOn={copies.isTurned}
          onChange={(isTurned) => set({ ...copies, isTurned })}
        />
      )}
    </>
  );
}
