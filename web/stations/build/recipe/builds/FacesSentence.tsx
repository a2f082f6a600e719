// FacesSentence.tsx — which sides of a slab are closed, and how they and its wall are divided.
import type { BuildChange, Slab } from '../../../../../core/index.ts';
import { Choice } from '../../../../controls/Choice.tsx';
import { Sentence } from '../../../../controls/Panel.tsx';
import { Value } from '../../../../controls/Value.tsx';
import { useDocument } from '../../../../store/project.ts';

/** Sentences about a slab: the settings that are shown, and what changes those of all chosen layers. */
export interface SlabSentenceProps {
  slab: Slab;
  change: (part: BuildChange, gesture?: string | null) => void;
}

export function FacesSentence({ slab, step, change }: SlabSentenceProps & { step: number }) {
  const { unit } = useDocument();
  const { faces, cell, wallRows, caps } = slab;
  return (
    <Sentence>
      <Choice
        label="Closed sides"
        value={caps}
        options={[
          ['both', 'Front and back are'],
          ['front', 'Only the front is'],
          ['back', 'Only the back is'],
          ['none', 'Neither front nor back is'],
        ]}
        onChange={(v) => change({ caps: v })}
      />{' '}
      closed
      {caps === 'none' ? '' : ' with '}
      {caps !== 'none' && (
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
      )}
      {faces !== 'fewest' && caps !== 'none' && (
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
      , the wall has{' '}
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
  );
}
