// EdgeSentence.tsx — the edges of the selected layers: which rims have one, its shape, and how far it may reach.
import { Link2, Unlink2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { type EdgeShape, PROFILES, profileWord, riseOf, type Slab } from '../../../../../core/index.ts';
import { Choice } from '../../../../controls/Choice.tsx';
import { Folded } from '../../../../controls/Folded.tsx';
import { IconButton } from '../../../../controls/IconButton.tsx';
import { Sentence } from '../../../../controls/Panel.tsx';
import { Value } from '../../../../controls/Value.tsx';
import { formatNumber } from '../../../../format.ts';
import { dispatch, useDocument } from '../../../../store/project.ts';
import { screen } from '../../../../store/screen.ts';
import { placeOf } from '../../narrowest.ts';
import type { Reading } from '../several.tsx';
import type { SlabSentenceProps } from './FacesSentence.tsx';
import type { BuildSentencesProps } from './index.ts';
import { freshProfile, ProfileEditor } from './ProfileEditor.tsx';

type EdgeSentenceProps = BuildSentencesProps<'slab'> & Pick<SlabSentenceProps, 'of'>;

export function EdgeSentence({ layers, of, narrowest, step, change }: EdgeSentenceProps) {
  const slabs = layers.map(({ build }) => build);
  const { edge, depth } = layers[0].build;
  const areDifferent = hasOwnBack(layers[0].build);
  const which = (
    <Choice
      label="Edge on"
      {...of((slab) => (hasOwnBack(slab) ? 'each' : slab.edge.on))}
      options={[
        ['none', 'no edge'],
        ['front', 'front edge'],
        ['back', 'back edge'],
        ['both', 'front and back edges'],
        ['each', 'front edge, unlike its back edge,'],
      ]}
      onChange={(on) => change({ edge: { on: on === 'each' ? 'both' : on }, backEdge: on === 'each' ? {} : null })}
    />
  );
  if (edge.on === 'none') return <Sentence>It has {which}.</Sentence>;
  return (
    <>
      <ShapeSentence
        side=""
        of={(read) => of((slab) => read(slab.edge))}
        shape={edge}
        step={step}
        safe={narrowest?.safeReach}
        depth={depth}
        change={(part, gesture) => change({ edge: part }, gesture)}
      >
        Its {which} {edge.on === 'both' && !areDifferent ? 'are' : 'is'}{' '}
      </ShapeSentence>
      {areDifferent && (
        <ShapeSentence
          side="Back "
          of={(read) => of((slab) => read(backOf(slab)))}
          shape={backOf(layers[0].build)}
          step={step}
          safe={narrowest?.safeReach}
          depth={depth}
          change={(part, gesture) => change({ backEdge: part }, gesture)}
        >
          Its back edge is{' '}
        </ShapeSentence>
      )}
      <SafeReach layers={layers} narrowest={narrowest} />
      <CornersSentence slabs={slabs} of={of} change={change} />
    </>
  );
}

interface ShapeSentenceProps {
  /** Put before the names of its controls. */
  side: '' | 'Back ';
  of: Reading<EdgeShape>;
  /** The first one's. */
  shape: EdgeShape;
  step: number;
  safe: number | undefined;
  /** Of the body: reach and rise may be typed as shares of it. */
  depth: number;
  change: (part: Partial<EdgeShape>, gesture?: string | null) => void;
  /** How the sentence begins. */
  children: ReactNode;
}

function ShapeSentence({ side, of, shape, step, safe, depth, change, children }: ShapeSentenceProps) {
  const { unit, profiles } = useDocument();
  const { profile, way, reach, steps } = shape;
  const { value: follows } = of(({ rise }) => rise === null);
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
            {...of((each) => (typeof each.profile === 'object' ? `${DRAWN}${each.profile.drawn}` : each.profile))}
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
          {...of((each) => each.way)}
          options={[
            ['in', 'in'],
            ['out', 'out'],
          ]}
          onChange={(v) => change({ way: v })}
        />{' '}
        <Value
          label={`${side}Reach`}
          {...of((each) => each.reach)}
          unit={unit}
          step={step}
          mark={mark}
          {...typed}
          onChange={(v, g) => change({ reach: v }, g)}
        />{' '}
        and down{' '}
        <Value
          label={`${side}Rise`}
          {...of(riseOf)}
          unit={unit}
          step={step}
          {...typed}
          onChange={(v, g) => change({ rise: v }, g)}
        />
        <IconButton
          icon={follows ? Link2 : Unlink2}
          label={`${side}Rise follows reach`}
          pressed={follows}
          className="mx-0.5 size-7 align-middle"
          onClick={() => change({ rise: follows ? riseOf(shape) : null })}
        />
        in{' '}
        <Value
          label={`${side}Steps`}
          {...of((each) => each.steps)}
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
              {...of((each) => each.beyond)}
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
function CornersSentence({ slabs, of, change }: SlabSentenceProps) {
  const corners = of((slab) => slab.edge.corners);
  const style = (part: Partial<Pick<EdgeShape, 'corners' | 'mitreLimit'>>, gesture: string | null = null) =>
    change({ edge: part }, gesture);
  return (
    <Folded title="Corners">
      <Sentence>
        Corners that point inward are{' '}
        <Choice
          label="Corners"
          {...corners}
          options={[
            ['mitred', 'mitred'],
            ['rounded', 'rounded'],
          ]}
          onChange={(v) => style({ corners: v })}
        />
        {corners.value === 'mitred' && (
          <>
            {' '}
            and cut square beyond{' '}
            <Value
              label="Mitre limit"
              {...of((slab) => slab.edge.mitreLimit)}
              step={0.5}
              min={1}
              max={100}
              onChange={(mitreLimit, g) => style({ mitreLimit }, g)}
            />{' '}
            reaches
          </>
        )}
        .
        {slabs.flatMap(inwardOf).some(({ beyond }) => beyond === 'hold') &&
          ' Where an edge holds back, all are mitred.'}
      </Sentence>
    </Folded>
  );
}

/** The largest reach that is safe, and where it is decided. */
function SafeReach({ layers, narrowest }: Pick<BuildSentencesProps<'slab'>, 'layers' | 'narrowest'>) {
  const { unit } = useDocument();
  if (!narrowest || layers.every(({ build }) => inwardOf(build).length === 0)) return null;
  const { safeReach: safe, of } = narrowest;
  const isFar = (edge: EdgeShape | null) => edge !== null && edge.way === 'in' && edge.reach > safe;
  const reach = floorTo(safe * WITHIN, 3);
  const stay = () => {
    const gesture = `within ${performance.now()}`;
    for (const rim of ['edge', 'backEdge'] as const) {
      const far = layers.filter(({ build }) => isFar(build[rim])).map(({ id }) => id);
      if (far.length > 0)
        dispatch({ do: 'change-layers', layers: far, change: { build: { [rim]: { reach } } } }, gesture);
    }
  };
  return (
    <p className="text-quiet text-sm">
      A flat front stays everywhere up to a reach of{' '}
      <button
        type="button"
        className="figure underline decoration-dotted underline-offset-4"
        title="Show the narrowest place"
        onClick={() => screen.pointAt(placeOf(narrowest), narrowest.of.id)}
      >
        {formatNumber(safe)} {unit}
      </button>
      {of !== layers[0] && `, which ${of.name} allows`}.{' '}
      {layers.some(({ build }) => isFar(build.edge) || isFar(build.backEdge)) && (
        <button type="button" className="underline" onClick={stay}>
          Stay within it
        </button>
      )}
    </p>
  );
}

/** Share of the safe reach that certainly leaves a front. */
const WITHIN = 0.98;

/** Whether the back has an edge that is not the front's. */
const hasOwnBack = ({ edge, backEdge }: Slab) => edge.on === 'both' && backEdge !== null;

const backOf = ({ edge, backEdge }: Slab): EdgeShape => backEdge ?? edge;

/** Those edges of a slab that take something from its front or back. */
function inwardOf({ edge, backEdge }: Slab): EdgeShape[] {
  return [edge, ...(backEdge ? [backEdge] : [])].filter(({ way }) => way === 'in');
}

function floorTo(value: number, digits: number): number {
  const power = 10 ** (digits - 1 - Math.floor(Math.log10(value)));
  return Math.floor(value * power) / power;
}
