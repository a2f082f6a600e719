// RegionsSentence.tsx — layers whose outlines stand out of the front of another, or sink into it: one body with it.
import type { Slab } from '../../../../../core/index.ts';
import { Choice } from '../../../../controls/Choice.tsx';
import { Sentence } from '../../../../controls/Panel.tsx';
import { TextButton } from '../../../../controls/TextButton.tsx';
import { Value } from '../../../../controls/Value.tsx';
import { dispatch, useDocumentPart } from '../../../../store/project.ts';
import { niceStep } from '../several.tsx';
import type { BuildSentencesProps, LayerOf } from './index.ts';

interface RegionsSentenceProps extends Pick<BuildSentencesProps<'slab'>, 'step' | 'change'> {
  layer: LayerOf<'slab'>;
}

const NONE = '';
/** Of the depth: how far a region stands out at first. */
const SHARE = 0.2;

export function RegionsSentence({ layer, step, change }: RegionsSentenceProps) {
  const unit = useDocumentPart((document) => document.unit);
  const layers = useDocumentPart((document) => document.layers);
  const { regions = [], depth } = layer.build;
  const others = layers.filter(({ id, build }) => id !== layer.id && build.kind === 'slab');
  const free = others.filter(({ id }) => !regions.some((region) => region.layer === id));
  const set = (next: NonNullable<Slab['regions']>, gesture: string | null = null) => change({ regions: next }, gesture);
  /** What is part of a front is not built by itself, and is again when it is taken off. */
  const build = (id: string, shown: boolean, gesture: string) =>
    dispatch({ do: 'change-layers', layers: [id], change: { shown } }, gesture);
  return (
    <>
      {regions.map(({ layer: id, by }, i) => {
        const name = others.find((other) => other.id === id)?.name ?? 'a layer that is gone';
        return (
          <Sentence key={id}>
            On its front, “{name}” {by < 0 ? 'sinks in' : 'stands out'} by{' '}
            <Value
              label={`Height of ${name} on the front`}
              value={by}
              unit={unit}
              step={Math.min(step, niceStep(by || depth))}
              min={-1e6}
              onChange={(v, g) =>
                set(
                  regions.map((old, k) => (k === i ? { ...old, by: v } : old)),
                  g,
                )
              }
            />
            :{' '}
            <TextButton
              onClick={() => {
                const gesture = `off the front ${performance.now()}`;
                set(
                  regions.filter((_, k) => k !== i),
                  gesture,
                );
                if (others.some((other) => other.id === id)) build(id, true, gesture);
              }}
            >
              take it off
            </TextButton>
            .
          </Sentence>
        );
      })}
      {free.length > 0 && (
        <Sentence>
          {regions.length > 0 ? 'Also standing' : 'Standing'} out of its front, in one body with it:{' '}
          <Choice<string>
            label="Layer that stands out of the front"
            value={NONE}
            options={[
              [NONE, regions.length > 0 ? 'none more' : 'nothing'],
              ...free.map(({ id, name }) => [id, name] as const),
            ]}
            onChange={(id) => {
              if (id === NONE) return;
              const gesture = `on the front ${performance.now()}`;
              set([...regions, { layer: id, by: Number((SHARE * depth).toPrecision(2)) }], gesture);
              build(id, false, gesture);
            }}
          />
          .
        </Sentence>
      )}
    </>
  );
}
