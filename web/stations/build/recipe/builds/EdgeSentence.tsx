// EdgeSentence.tsx — the edges of the selected layers: which rims have one, its shape, and how far it may reach.
import type { ReactNode } from 'react';
import { type EdgeShape, type Layer, PROFILES, profileWord, type Slab } from '../../../../../core/index.ts';
import { Choice } from '../../../../controls/Choice.tsx';
import { Folded } from '../../../../controls/Folded.tsx';
import { Sentence } from '../../../../controls/Panel.tsx';
import { Value } from '../../../../controls/Value.tsx';
import { formatMeasure } from '../../../../format.ts';
import { dispatch, useDocument } from '../../../../store/project.ts';
import { screen } from '../../../../store/screen.ts';
import { type Narrowest, placeOf } from '../../narrowest.ts';
import type { SlabSentenceProps } from './FacesSentence.tsx';
import { freshProfile, ProfileEditor } from './ProfileEditor.tsx';

interface EdgeSentenceProps extends SlabSentenceProps {
  /** The first of the chosen layers. */
  layer: Layer;
  /** Of all selected layers; null while none is known. */
  narrowest: Narrowest | null;
  step: number;
}

export function EdgeSentence({ slab, layer, narrowest, step, change }: EdgeSentenceProps) {
  const { edge, backEdge } = slab;
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
        safe={narrowest?.safeReach}
        depth={slab.depth}
        change={(part, gesture) => change({ edge: part }, gesture)}
      >
        Its {which} {edge.on === 'both' && !areDifferent ? 'are' : 'is'}{' '}
      </ShapeSentence>
      {areDifferent && (
        <ShapeSentence
          side="Back "
          shape={backEdge}
          step={step}
          safe={narrowest?.safeReach}
          depth={slab.depth}
          change={(part, gesture) => change({ backEdge: { ...backEdge, ...part } }, gesture)}
        >
          Its back edge is{' '}
        </ShapeSentence>
      )}
      <SafeReach slab={slab} layer={layer} narrowest={narrowest} change={change} />
      <CornersSentence slab={slab} change={change} />
    </>
  );
}

interface ShapeSentenceProps {
  /** Put before the names of its controls. */
  side: '' | 'Back ';
  shape: EdgeShape;
  step: number;
  safe: number | undefined;
  /** Of the body: reach and rise may be typed as shares of it. */
  depth: number;
  change: (part: Partial<EdgeShape>, gesture?: string | null) => void;
  /** How the sentence begins. */
  children: ReactNode;
}

function ShapeSentence({ side, shape, step, safe, depth, change, children }: ShapeSentenceProps) {
  const { unit, profiles } = useDocument();
  const { profile, way, reach, rise, steps, beyond } = shape;
  const mark = way === 'in' ? safe : undefined;
  const typed = { whole: depth, words: { depth } };
  const isFar = mark !== undefined && reach > mark;
  const drawn = typeof profile === 'object' ? profiles.find(({ name }) => name === profile.drawn) : undefined;
  const choose = (value: string) => {
    const known = PROFILES.find((each) => each === value);
    if (known) return change({ profile: known });
    if (value !== DRAW) return change({ profile: { drawn: value.slice(DRAWN.length) } });
    const fresh = freshProfile(profiles);
    dispatch({ do: 'save-profile', profile: fresh });
    change({ profile: { drawn: fresh.name } });
  };
  return (
    <>
      <Sentence>
        {children}
        <span className="whitespace-nowrap">
          <Choice
            label={`${side}Profile`}
            value={typeof profile === 'object' ? `${DRAWN}${profile.drawn}` : profile}
            options={[
              ...PROFILES.map((each) => [each, profileWord(each)] as const),
              ...profiles.map(({ name }) => [`${DRAWN}${name}`, `shaped as “${name}”`] as const),
              [DRAW, 'drawn by hand…'],
            ]}
            onChange={choose}
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
          {...typed}
          onChange={(v, g) => change({ reach: v }, g)}
        />{' '}
        and down{' '}
        <Value
          label={`${side}Rise`}
          value={rise}
          unit={unit}
          step={step}
          {...typed}
          onChange={(v, g) => change({ rise: v }, g)}
        />{' '}
        in{' '}
        <Value
          label={`${side}Steps`}
          value={steps}
          step={1}
          min={1}
          max={32}
          onChange={(v, g) => change({ steps: Math.round(v) }, g)}
        />{' '}
        {steps === 1 ? 'step' : 'steps'}
        {drawn && drawn.points.length > 0 && (drawn.isSmooth ? ' between two points' : '')}.
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
      {drawn && <ProfileEditor profile={drawn} />}
    </>
  );
}

/** Values of the profile's choice: one that is drawn, by its name, and a new one. */
const [DRAWN, DRAW] = ['drawn ', 'draw'];

/** Rarely touched: how edges go round corners that point inward. */
function CornersSentence({ slab, change }: SlabSentenceProps) {
  const { edge, backEdge } = slab;
  const style = (part: Partial<Pick<EdgeShape, 'corners' | 'mitreLimit'>>, gesture: string | null = null) =>
    change({ edge: part, backEdge: backEdge && { ...backEdge, ...part } }, gesture);
  return (
    <Folded title="Corners">
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
        .{inwardOf(slab).some(({ beyond }) => beyond === 'hold') && ' Where an edge holds back, all are mitred.'}
      </Sentence>
    </Folded>
  );
}

/** The largest reach that is safe, and where it is decided. */
function SafeReach({ slab, layer, narrowest, change }: Omit<EdgeSentenceProps, 'step'>) {
  const { unit } = useDocument();
  const inward = inwardOf(slab);
  if (!narrowest || inward.length === 0) return null;
  const { safeReach: safe, of } = narrowest;
  const { backEdge } = slab;
  const isFar = inward.some(({ reach }) => reach > safe);
  const within = { reach: floorTo(safe * 0.98, 3) };
  return (
    <p className="text-quiet text-sm">
      A flat front stays everywhere up to a reach of{' '}
      <button
        type="button"
        className="figure underline decoration-dotted underline-offset-4"
        title="Show the narrowest place"
        onClick={() => screen.pointAt(placeOf(narrowest))}
      >
        {formatMeasure(safe)} {unit}
      </button>
      {of !== layer && `, which ${of.name} allows`}.{' '}
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

/** Those edges of a slab that take something from its front or back. */
function inwardOf({ edge, backEdge }: Slab): EdgeShape[] {
  return [edge, ...(backEdge ? [backEdge] : [])].filter(({ way }) => way === 'in');
}

function floorTo(value: number, digits: number): number {
  const power = 10 ** (digits - 1 - Math.floor(Math.log10(value)));
  return Math.floor(value * power) / power;
}
