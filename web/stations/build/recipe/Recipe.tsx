// Recipe.tsx — the selected layers' build as sentences whose values are the controls.
import type { ComponentType } from 'react';
import { buildKind, heightOf, type Layer, type LayerChange } from '../../../../core/index.ts';
import { ColourField } from '../../../controls/ColourField.tsx';
import { Folded } from '../../../controls/Folded.tsx';
import { Note, Panel, Sentence } from '../../../controls/Panel.tsx';
import { Value } from '../../../controls/Value.tsx';
import { useBuild } from '../../../store/build.ts';
import { dispatch, useDocument } from '../../../store/project.ts';
import { narrowestOf } from '../narrowest.ts';
import { BUILD_SENTENCES, type BuildSentencesProps } from './builds/index.ts';
import { PicturesSentence, ShadingSentence, TidySentence } from './MeshSentences.tsx';
import { SeveralNote } from './several.tsx';

/** @param layers at least one; values shown are the first one's, changes go to all */
export function Recipe({ layers }: { layers: readonly [Layer, ...Layer[]] }) {
  const { unit, tolerance } = useDocument();
  const view = useBuild((state) => state.view);
  const [layer] = layers;
  const { name, base, build, material } = layer;
  const depth = heightOf(build);
  const kind = buildKind(build.kind);
  const isOfOutlines = kind.from === 'outlines';
  const Sentences = BUILD_SENTENCES[build.kind] as ComponentType<BuildSentencesProps<typeof build.kind>> | undefined;
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
      {layers.length > 1 && <SeveralNote layers={layers} />}
      <Sentence>
        <b>{name}</b> is{' '}
        <Value
          label="Depth"
          value={depth}
          unit={unit}
          step={step}
          min={step / 10}
          onChange={(v, g) => change({ build: { depth: v } }, g)}
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
      {Sentences && (
        <Sentences
          layer={layer}
          narrowest={narrowestOf(layers, view)}
          step={step}
          change={(part, gesture = null) => change({ build: part }, gesture)}
        />
      )}
      <Sentence>
        It is{' '}
        <ColourField
          label="Colour"
          value={material.colour}
          onChange={(colour, gesture) => change({ material: { colour } }, gesture)}
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
      <ShadingSentence layer={layer} change={change} />
      {isOfOutlines && <PicturesSentence layer={layer} change={change} />}
      <TidySentence layer={layer} view={seen} change={change} />
      {isOfOutlines && (
        <Folded title="Curves">
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
        </Folded>
      )}
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
