// Recipe.tsx — the selected layers' build as sentences whose values are the controls.
import type { ReactNode } from 'react';
import type { EdgeShape, Layer, LayerChange } from '../../core/index.ts';
import { Choice } from '../controls/Choice.tsx';
import { Note, Panel, Sentence } from '../controls/Panel.tsx';
import { Value } from '../controls/Value.tsx';
import { formatMeasure } from '../format.ts';
import { useBuild } from '../store/build.ts';
import { dispatch, useDocument } from '../store/project.ts';
import { screen } from '../store/screen.ts';
import type { LayerView } from '../worker/geometry.worker.ts';

/** @param layers at least one; values shown are the first one's, changes go to all */
export function Recipe({ layers }: { layers: readonly [Layer, ...Layer[]] }) {
  const { unit, tolerance } = useDocument();
  const view = useBuild((state) => state.view);
  const [layer] = layers;
  const { name, depth, base, faces, cell, wallRows, material } = layer;
  const ids = layers.map((each) => each.id);
  const change = (part: LayerChange, gesture: string | null = null) =>
    dispatch({ do: 'change-layers', layers: ids, change: part }, gesture);
  const step = niceStep(depth);
  const seen = view?.layers.find((entry) => entry.id === layer.id);

  return (
    <Panel
      title="Recipe"
      aside={<span className="text-quiet text-sm">{layers.length > 1 ? `${layers.length} layers at once` : ''}</span>}
    >
      <Sentence>
        <b>{layers.length > 1 ? layers.map((each) => each.name).join(', ') : name}</b> is{' '}
        <Value
          label="Depth"
          value={depth}
          unit={unit}
          step={step}
          min={step / 10}
          onChange={(v, g) => change({ depth: v }, g)}
        />{' '}
        deep, standing{' '}
        <Value
          label="Base"
          value={base}
          unit={unit}
          step={step}
          min={-1e6}
          onChange={(v, g) => change({ base: v }, g)}
        />{' '}
        above the sheet.
      </Sentence>
      <EdgeSentence layer={layer} view={seen} step={step / 2} change={change} />
      <Sentence>
        Front and back are meshed with{' '}
        <Choice
          label="Face mesh"
          value={faces}
          options={[
            ['fewest', 'as few faces as possible'],
            ['even', 'even triangles'],
            ['grid', 'a grid of squares'],
          ]}
          onChange={(v) => change({ faces: v })}
        />
        {faces !== 'fewest' && (
          <>
            {' '}
            of about{' '}
            <Value
              label="Cell"
              value={cell}
              unit={unit}
              step={step}
              min={step / 10}
              onChange={(v, g) => change({ cell: v }, g)}
            />
          </>
        )}
        , its wall with{' '}
        <Value
          label="Wall rows"
          value={wallRows}
          step={1}
          min={1}
          max={64}
          onChange={(v, g) => change({ wallRows: Math.round(v) }, g)}
        />{' '}
        {wallRows === 1 ? 'row' : 'rows'} of faces.
      </Sentence>
      <Sentence>
        It is{' '}
        <input
          type="color"
          aria-label="Colour"
          value={material.colour}
          className="inline-block h-5 w-8 cursor-pointer border border-rule bg-transparent align-middle"
          onChange={(event) => change({ material: { colour: event.target.value } }, `colour ${layer.id}`)}
        />{' '}
        <span className="figure text-quiet">{material.colour}</span>,{' '}
        <Percent
          label="Roughness"
          value={material.roughness}
          onChange={(v, g) => change({ material: { roughness: v } }, g)}
        />{' '}
        rough,{' '}
        <Percent
          label="Metalness"
          value={material.metalness}
          onChange={(v, g) => change({ material: { metalness: v } }, g)}
        />{' '}
        metal.
      </Sentence>
      <details className="text-sm">
        <summary className="cursor-pointer text-quiet">Curves</summary>
        <Sentence>
          Curves are followed within{' '}
          <Value
            label="Tolerance"
            value={tolerance}
            unit={unit}
            step={niceStep(tolerance)}
            min={1e-6}
            onChange={(v, g) => dispatch({ do: 'set-tolerance', tolerance: v }, g)}
          />{' '}
          in the whole project: {seen ? seen.points : 0} points in this layer’s {seen?.outlines ?? 0}{' '}
          {seen?.outlines === 1 ? 'outline' : 'outlines'}.
        </Sentence>
      </details>
      {seen?.warnings.map(({ message }) => (
        <Note key={message}>{message}</Note>
      ))}
      {seen?.error && <Note tone="ember">{seen.error.message}</Note>}
      {seen && seen.stranded.length > 0 && (
        <Note tone="ember">{seen.stranded.length} shapes of this layer are not in its source any more.</Note>
      )}
    </Panel>
  );
}

interface EdgeSentenceProps {
  layer: Layer;
  view: LayerView | undefined;
  step: number;
  change: (part: LayerChange, gesture?: string | null) => void;
}

function EdgeSentence({ layer, view, step, change }: EdgeSentenceProps) {
  const { edge, backEdge } = layer;
  const areDifferent = edge.on === 'both' && backEdge !== null;
  const { on: _, ...shape } = edge;
  const which = (
    <Choice
      label="Edge on"
      value={areDifferent ? 'each' : edge.on}
      options={[
        ['none', 'no edge'],
        ['front', 'front edge'],
        ['back', 'back edge'],
        ['both', 'front and back edges'],
        ['each', 'front edge, unlike its back edge,'],
      ]}
      onChange={(on) =>
        change({ edge: { on: on === 'each' ? 'both' : on }, backEdge: on === 'each' ? (backEdge ?? shape) : null })
      }
    />
  );
  if (edge.on === 'none') return <Sentence>It has {which}.</Sentence>;
  return (
    <>
      <ShapeSentence
        side=""
        shape={edge}
        step={step}
        safe={view?.width?.safeReach}
        change={(part, gesture) => change({ edge: part }, gesture)}
      >
        Its {which} {edge.on === 'both' && !areDifferent ? 'are' : 'is'}{' '}
      </ShapeSentence>
      {areDifferent && (
        <ShapeSentence
          side="Back "
          shape={backEdge}
          step={step}
          safe={view?.width?.safeReach}
          change={(part, gesture) => change({ backEdge: { ...backEdge, ...part } }, gesture)}
        >
          Its back edge is{' '}
        </ShapeSentence>
      )}
      <SafeReach layer={layer} view={view} change={change} />
      <CornersSentence layer={layer} change={change} />
    </>
  );
}

interface ShapeSentenceProps {
  /** Put before the names of its controls. */
  side: '' | 'Back ';
  shape: EdgeShape;
  step: number;
  safe: number | undefined;
  change: (part: Partial<EdgeShape>, gesture?: string | null) => void;
  /** How the sentence begins. */
  children: ReactNode;
}

function ShapeSentence({ side, shape, step, safe, change, children }: ShapeSentenceProps) {
  const { unit } = useDocument();
  const { profile, way, reach, rise, steps, beyond } = shape;
  const mark = way === 'in' ? safe : undefined;
  const isFar = mark !== undefined && reach > mark;
  return (
    <Sentence>
      {children}
      <span className="whitespace-nowrap">
        <Choice
          label={`${side}Profile`}
          value={profile}
          options={[
            ['round', 'rounded'],
            ['chamfer', 'chamfered'],
            ['cove', 'coved'],
            ['ogee', 'ogee-shaped'],
            ['step', 'stepped'],
            ['bead', 'beaded'],
          ]}
          onChange={(v) => change({ profile: v })}
        />
        ,
      </span>{' '}
      reaching{' '}
      <Choice
        label={`${side}Way`}
        value={way}
        options={[
          ['in', 'in'],
          ['out', 'out'],
        ]}
        onChange={(v) => change({ way: v })}
      />{' '}
      <Value
        label={`${side}Reach`}
        value={reach}
        unit={unit}
        step={step}
        mark={mark}
        onChange={(v, g) => change({ reach: v }, g)}
      />{' '}
      and down{' '}
      <Value label={`${side}Rise`} value={rise} unit={unit} step={step} onChange={(v, g) => change({ rise: v }, g)} />{' '}
      in{' '}
      <Value
        label={`${side}Steps`}
        value={steps}
        step={1}
        min={1}
        max={32}
        onChange={(v, g) => change({ steps: Math.round(v) }, g)}
      />{' '}
      {steps === 1 ? 'step' : 'steps'}.
      {isFar && (
        <>
          {' '}
          Where that is too far, it{' '}
          <Choice
            label={`${side}Beyond the safe reach`}
            value={beyond}
            options={[
              ['ridge', 'rises to a ridge'],
              ['hold', 'holds back and keeps a flat front'],
            ]}
            onChange={(v) => change({ beyond: v })}
          />
          .
        </>
      )}
    </Sentence>
  );
}

/** Rarely touched: how edges go round corners that point inward. */
function CornersSentence({ layer: { edge, backEdge }, change }: Pick<EdgeSentenceProps, 'layer' | 'change'>) {
  const style = (part: Partial<Pick<EdgeShape, 'corners' | 'mitreLimit'>>, gesture: string | null = null) =>
    change({ edge: part, backEdge: backEdge && { ...backEdge, ...part } }, gesture);
  return (
    <details className="text-sm">
      <summary className="cursor-pointer text-quiet">Corners</summary>
      <Sentence>
        Corners that point inward are{' '}
        <Choice
          label="Corners"
          value={edge.corners}
          options={[
            ['mitred', 'mitred'],
            ['rounded', 'rounded'],
          ]}
          onChange={(corners) => style({ corners })}
        />
        {edge.corners === 'mitred' && (
          <>
            {' '}
            and cut square beyond{' '}
            <Value
              label="Mitre limit"
              value={edge.mitreLimit}
              step={0.5}
              min={1}
              max={100}
              onChange={(mitreLimit, g) => style({ mitreLimit }, g)}
            />{' '}
            reaches
          </>
        )}
        .
      </Sentence>
    </details>
  );
}

/** The largest reach that is safe, and where it is decided. */
function SafeReach({ layer, view, change }: Omit<EdgeSentenceProps, 'step'>) {
  const { unit } = useDocument();
  if (!view?.width) return null;
  const { safeReach: safe, at } = view.width;
  const { edge, backEdge } = layer;
  const isFar = [edge, backEdge].some((shape) => shape?.way === 'in' && shape.reach > safe);
  const within = { reach: floorTo(safe * 0.98, 3) };
  return (
    <p className="text-quiet text-sm">
      A flat front stays everywhere up to a reach of{' '}
      <button
        type="button"
        className="figure underline decoration-dotted underline-offset-4"
        title="Show the narrowest place"
        onClick={() => screen.pointAt([at[0], at[1], layer.base + layer.depth])}
      >
        {formatMeasure(safe)} {unit}
      </button>
      .{' '}
      {isFar && (
        <button
          type="button"
          className="underline"
          onClick={() => change({ edge: within, backEdge: backEdge && { ...backEdge, ...within } })}
        >
          Stay within it
        </button>
      )}
    </p>
  );
}

interface PercentProps {
  label: string;
  value: number;
  onChange: (value: number, gesture: string | null) => void;
}

function Percent({ label, value, onChange }: PercentProps) {
  return (
    <Value
      label={label}
      value={Math.round(value * 100)}
      unit="%"
      step={1}
      max={100}
      onChange={(v, g) => onChange(v / 100, g)}
    />
  );
}

/** A tenth of the value's own power of ten at most, so that steps suit both watch parts and shop signs. */
function niceStep(value: number): number {
  return 10 ** (Math.floor(Math.log10(value)) - 1);
}

function floorTo(value: number, digits: number): number {
  const power = 10 ** (digits - 1 - Math.floor(Math.log10(value)));
  return Math.floor(value * power) / power;
}
