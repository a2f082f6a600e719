// MeshSentences.tsx — how the mesh of the selected layers is divided, shaded, laid on pictures and tidied.
import type { LayerView } from '../../../../core/index.ts';
import { type Layer, type LayerChange, TIDY_STEPS, type TidySettings, type TidyStep } from '../../../../core/index.ts';
import { Choice } from '../../../controls/Choice.tsx';
import { Folded } from '../../../controls/Folded.tsx';
import { Note, Sentence } from '../../../controls/Panel.tsx';
import { MIXED } from '../../../controls/shared.ts';
import { TextButton } from '../../../controls/TextButton.tsx';
import { Value } from '../../../controls/Value.tsx';
import { countOf, formatCount } from '../../../format.ts';
import { useDocument } from '../../../store/project.ts';
import { screen, useScreen } from '../../../store/screen.ts';
import { type AtLeastOne, readingOf } from './several.tsx';

export interface SentenceProps {
  layers: AtLeastOne<Layer>;
  change: (part: LayerChange, gesture?: string | null) => void;
}

export function ShadingSentence({ layers, change }: SentenceProps) {
  const of = readingOf(layers);
  return (
    <Folded title="Shading">
      <Sentence>
        Faces of one side that meet at less than{' '}
        <Value
          label="Crease"
          {...of(({ shading }) => shading.crease)}
          unit="°"
          step={1}
          max={180}
          onChange={(v, g) => change({ shading: { crease: v } }, g)}
        />{' '}
        are shaded as one surface.
        {layers.some(({ build }) => 'edge' in build && build.edge.on !== 'none') && (
          <>
            {' '}
            The edge{' '}
            <Choice
              label="Edge shading"
              {...of(({ shading }) => shading.blend)}
              options={[
                ['none', 'stands off from wall and front'],
                ['wall', 'runs smoothly into the wall'],
                ['front', 'runs smoothly into the front'],
                ['both', 'runs smoothly into both'],
              ]}
              onChange={(v) => change({ shading: { blend: v } })}
            />
            .
          </>
        )}
      </Sentence>
    </Folded>
  );
}

export function PicturesSentence({ layers, change }: SentenceProps) {
  const uv = readingOf(layers)((layer) => layer.uv);
  const { unit } = useDocument();
  const checker = useScreen((state) => state.checker);
  return (
    <Folded title="Pictures" aside={uv.isMixed ? MIXED : uv.value === 'none' ? null : uv.value}>
      <Sentence>
        Its faces{' '}
        <Choice
          label="Places on pictures"
          {...uv}
          options={[
            ['none', 'have no places on pictures'],
            ['units', `lie on pictures in ${unit}`],
            ['fitted', 'lie on pictures fitted to the front'],
            ['packed', 'each have a picture place of their own'],
          ]}
          onChange={(v) => change({ uv: v })}
        />
        .{' '}
        {uv.value !== 'none' && (
          <TextButton onClick={screen.toggleChecker}>
            {checker ? 'Take the checker off' : 'Show a checker on it'}
          </TextButton>
        )}
      </Sentence>
      {uv.value !== 'none' && (
        <p className="text-quiet">
          Front and back lie flat, the back as seen from behind; wall and edge are unrolled from the lowest point of
          each outline.
        </p>
      )}
    </Folded>
  );
}

const TIDY_WORDS: Record<TidyStep, readonly [thing: string, done: string]> = {
  welded: ['point', 'welded'],
  removed: ['face', 'removed'],
  turned: ['face', 'turned outward'],
  merged: ['face', 'merged into others'],
  dropped: ['point', 'dropped'],
};

/** Where tidying begins: nothing is moved further than this share of the tolerance. */
const START_SHARE = 0.1;
const START_DEG = 0.5;

export function TidySentence({ layers, view, change }: SentenceProps & { view: LayerView | undefined }) {
  const { unit, tolerance } = useDocument();
  const of = readingOf(layers);
  const on = of(({ tidy }) => (tidy ? 'on' : 'off'));
  const [{ tidy }] = layers;
  /** Of those that are tidied. */
  const tidied = layers.flatMap((layer) => layer.tidy ?? []) as unknown as AtLeastOne<TidySettings>;
  const how = readingOf(tidied);
  const small = START_SHARE * tolerance;
  const set = (part: Partial<TidySettings>, gesture: string | null = null) => change({ tidy: part }, gesture);
  const changes = view?.tidied;
  return (
    <Folded title="Tidying" aside={on.isMixed ? MIXED : tidy ? 'on' : null}>
      <Sentence>
        The mesh is{' '}
        <Choice
          label="Tidying"
          {...on}
          options={[
            ['off', 'left as it is built'],
            ['on', 'tidied'],
          ]}
          onChange={(v) => change({ tidy: v === 'on' ? { weld: small, straight: small, flat: START_DEG } : null })}
        />
        {tidy && (
          <>
            : points nearer than{' '}
            <Value
              label="Weld"
              {...how(({ weld }) => weld)}
              unit={unit}
              step={small}
              onChange={(v, g) => set({ weld: v }, g)}
            />{' '}
            become one, points on straight lines{' '}
            <Choice
              label="Straight points"
              {...how(({ straight }) => (straight < 0 ? 'stay' : 'go'))}
              options={[
                ['stay', 'stay'],
                ['go', 'go within'],
              ]}
              onChange={(v) => set({ straight: v === 'go' ? small : -1 })}
            />{' '}
            {tidy.straight >= 0 && (
              <Value
                label="Straight within"
                {...how(({ straight }) => straight)}
                unit={unit}
                step={small}
                onChange={(v, g) => set({ straight: v }, g)}
              />
            )}
            , and flat neighbours{' '}
            <Choice
              label="Flat neighbours"
              {...how(({ flat }) => (flat < 0 ? 'stay' : 'merge'))}
              options={[
                ['stay', 'stay apart'],
                ['merge', 'become one polygon up to'],
              ]}
              onChange={(v) => set({ flat: v === 'merge' ? START_DEG : -1 })}
            />{' '}
            {tidy.flat >= 0 && (
              <Value
                label="Flat up to"
                {...how(({ flat }) => flat)}
                unit="°"
                step={0.5}
                max={90}
                onChange={(v, g) => set({ flat: v }, g)}
              />
            )}
          </>
        )}
        .
      </Sentence>
      {changes && <Note>{toldOf(changes)}</Note>}
    </Folded>
  );
}

/** What tidying did, in numbers. */
function toldOf(changes: Readonly<Record<TidyStep, number>>): string {
  const said = TIDY_STEPS.filter((step) => changes[step] > 0).map((step) => {
    const [thing, done] = TIDY_WORDS[step];
    return `${countOf(changes[step], thing)} ${done}`;
  });
  return said.length > 0 ? `${said.join(', ')}.` : `It was tidy already: ${formatCount(0)} changes.`;
}
