// Recipe.tsx — the selected layers' build as sentences whose values are the controls.
import type { ComponentType } from 'react';
import { buildKind, heightOf, type Layer, type LayerChange } from '../../../../core/index.ts';
import { Folded } from '../../../controls/Folded.tsx';
import { Note, Panel, Sentence } from '../../../controls/Panel.tsx';
import { TextButton } from '../../../controls/TextButton.tsx';
import { Value } from '../../../controls/Value.tsx';
import { useBuild } from '../../../store/build.ts';
import { dispatch, useDocument } from '../../../store/project.ts';
import { vary } from '../../../store/vary.ts';
import { OpenNote } from '../../proof/OpenNote.tsx';
import { narrowestOf } from '../narrowest.ts';
import { BUILD_SENTENCES, type BuildSentencesProps, type LayerOf } from './builds/index.ts';
import { KeptRecipes } from './KeptRecipes.tsx';
import { MarkSentences } from './MarkSentences.tsx';
import { ShadingSentence, TidySentence, UvSentence } from './MeshSentences.tsx';
import { MaterialSentences } from './material/MaterialSentences.tsx';
import { RuleSentences } from './RuleSentences.tsx';
import { type AtLeastOne, niceStep, readingOf, SeveralNote } from './several.tsx';

/** @param layers the ones that are changed; sentences read as the first one's */
export function Recipe({ layers }: { layers: AtLeastOne<Layer> }) {
  const { unit, tolerance } = useDocument();
  const view = useBuild((state) => state.view);
  const [layer] = layers;
  const { name, build } = layer;
  const of = readingOf(layers);
  const kind = buildKind(build.kind);
  const isOfOutlines = kind.from === 'outlines';
  const Sentences = BUILD_SENTENCES[build.kind] as ComponentType<BuildSentencesProps<typeof build.kind>> | undefined;
  const ids = layers.map((each) => each.id);
  const change = (part: LayerChange, gesture: string | null = null) =>
    dispatch({ do: 'change-layers', layers: ids, change: part }, gesture);
  const alike = layers.filter((each) => each.build.kind === build.kind) as unknown as AtLeastOne<
    LayerOf<typeof build.kind>
  >;
  const step = niceStep(heightOf(build));
  const seen = view?.layers.find((entry) => entry.id === layer.id);

  return (
    <Panel title="Recipe" aside={<TextButton onClick={vary.open}>Contact sheet</TextButton>}>
      {layers.length > 1 && <SeveralNote layers={layers} />}
      <OpenNote among={layers} />
      <Sentence>
        {layers.length > 1 ? <b>Each</b> : <b>{name}</b>} is{' '}
        <Value
          label="Depth"
          {...of((each) => heightOf(each.build))}
          unit={unit}
          step={step}
          min={step / 10}
          onChange={(v, g) => change({ build: { depth: v } }, g)}
        />{' '}
        deep, standing{' '}
        <Value
          label="Base"
          {...of(({ base }) => base)}
          unit={unit}
          step={step}
          min={-1e6}
          onChange={(v, g) => change({ base: v }, g)}
        />{' '}
        above the sheet.
      </Sentence>
      <RuleSentences layers={layers} />
      {Sentences && (
        <Sentences
          layers={alike}
          narrowest={narrowestOf(layers, view)}
          step={step}
          change={(part, gesture = null) => change({ build: part }, gesture)}
        />
      )}
      <MaterialSentences layers={layers} />
      <ShadingSentence layers={layers} change={change} />
      {layers.length === 1 && <MarkSentences layer={layer} />}
      {isOfOutlines && <UvSentence layers={layers} change={change} />}
      <TidySentence layers={layers} view={seen} change={change} />
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
      <KeptRecipes layers={layers} />
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
