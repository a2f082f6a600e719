// MeshSentences.tsx — how the mesh of the selected layers is divided, shaded, laid on pictures and tidied.
import type { LayerView } from '../../../../core/index.ts';
import {
  type Layer,
  type LayerChange,
  TIDY_STEPS,
  type Tidied,
  type TidySettings,
  type TidyStep,
} from '../../../../core/index.ts';
import { Choice } from '../../../controls/Choice.tsx';
import { Folded } from '../../../controls/Folded.tsx';
import { Note, Sentence } from '../../../controls/Panel.tsx';
import { MIXED } from '../../../controls/shared.ts';
import { TextButton } from '../../../controls/TextButton.tsx';
import { Value } from '../../../controls/Value.tsx';
import { countOf, formatNumber } from '../../../format.ts';
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

export function UvSentence({ layers, change }: SentenceProps) {
  const uv = readingOf(layers)((layer) => layer.uv);
  const { unit } = useDocument();
  const checker = useScreen((state) => state.checker);
  return (
    <Folded title="UV" aside={uv.isMixed ? MIXED : uv.value === 'none' ? null : uv.value}>
      <Sentence>
        Its faces{' '}
        <Choice
          label="UV layout"
          {...uv}
          options={[
            ['none', 'have no UVs'],
            ['units', `have UVs in ${unit}`],
            ['fitted', 'have UVs fitted to the front'],
            ['packed', 'have UVs packed side by side'],
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
  closed: ['face', 'put over open rims'],
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
          onChange={(v) =>
            change({ tidy: v === 'on' ? { weld: small, straight: small, flat: START_DEG, close: false } : null })
          }
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
            . Open rims{' '}
            <Choice
              label="Open rims"
              {...how(({ close }) => (close ? 'close' : 'stay'))}
              options={[
                ['stay', 'stay open'],
                ['close', 'get flat caps'],
              ]}
              onChange={(v) => set({ close: v === 'close' })}
            />
          </>
        )}
        .
      </Sentence>
      {changes && <TidyReport changes={changes} unit={unit} />}
    </Folded>
  );
}

/** What tidying did, step by step: how far anything moved, and what became of the volume. */
function TidyReport({ changes, unit }: { changes: Tidied['changes']; unit: string }) {
  const done = TIDY_STEPS.filter((step) => changes[step].count > 0);
  if (done.length === 0) return <Note>It was tidy already: nothing changed.</Note>;
  const volume = (v: number | null) => (v === null ? 'open' : formatNumber(v));
  return (
    <table className="w-full text-sm" aria-label="What tidying changed">
      <thead className="text-left text-quiet">
        <tr>
          <th className="font-normal">step</th>
          <th className="text-right font-normal">farthest, {unit}</th>
          <th className="text-right font-normal">volume, {unit}³</th>
        </tr>
      </thead>
      <tbody>
        {done.map((step) => {
          const { count, farthest, before, after } = changes[step];
          const [thing, words] = TIDY_WORDS[step];
          return (
            <tr key={step} className="border-rule border-t align-top">
              <td className="py-0.5 pr-2">
                {countOf(count, thing)} {words}
              </td>
              <td className="figure py-0.5 pr-2 text-right">{formatNumber(farthest)}</td>
              <td className="figure py-0.5 text-right">
                {volume(before) === volume(after) ? volume(after) : `${volume(before)} → ${volume(after)}`}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
