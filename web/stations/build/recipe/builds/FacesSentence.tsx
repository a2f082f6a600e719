// FacesSentence.tsx — which sides of a slab are closed, and how they and its wall are divided.
import type { BuildChange, Slab } from '../../../../../core/index.ts';
import { Choice } from '../../../../controls/Choice.tsx';
import { Sentence } from '../../../../controls/Panel.tsx';
import { Value } from '../../../../controls/Value.tsx';
import { useDocument } from '../../../../store/project.ts';
import type { Reading } from '../several.tsx';
import type { LayerOf } from './index.ts';
import { useWeighed } from './large.tsx';

/** Sentences about slabs, which read as the first one's: their settings, and what changes those of all. */
export interface SlabSentenceProps {
  slabs: readonly Slab[];
  of: Reading<Slab>;
  change: (part: BuildChange, gesture?: string | null) => void;
}

interface FacesSentenceProps extends Pick<SlabSentenceProps, 'of' | 'change'> {
  layers: readonly LayerOf<'slab'>[];
  step: number;
}

export function FacesSentence({ layers, of, step, change }: FacesSentenceProps) {
  const { weighed, said } = useWeighed(layers, change);
  const { unit } = useDocument();
  const caps = of((slab) => slab.caps);
  const faces = of((slab) => slab.faces);
  const rows = of((slab) => slab.wallRows);
  // A dome is made of even triangles where nothing else is.
  const isCrowned = of(({ front }) => front?.is === 'crowned').value;
  return (
    <>
      <Sentence>
        <Choice
          label="Closed sides"
          {...caps}
          options={[
            ['both', 'Front and back are'],
            ['front', 'Only the front is'],
            ['back', 'Only the back is'],
            ['none', 'Neither front nor back is'],
          ]}
          onChange={(v) => change({ caps: v })}
        />{' '}
        closed
        {caps.value === 'none' ? '' : ' with '}
        {caps.value !== 'none' && (
          <Choice
            label="Face mesh"
            {...faces}
            options={[
              ['fewest', 'as few faces as possible'],
              ['even', 'even triangles'],
              ['grid', 'a grid of squares'],
            ]}
            onChange={(v) => weighed({ faces: v })}
          />
        )}
        {(faces.value !== 'fewest' || isCrowned) && caps.value !== 'none' && (
          <>
            {' '}
            of about{' '}
            <Value
              label="Cell"
              {...of((slab) => slab.cell)}
              unit={unit}
              step={step}
              min={step / 10}
              onChange={(v, g) => weighed({ cell: v }, g)}
            />
          </>
        )}
        , the wall has{' '}
        <Value
          label="Wall rows"
          {...rows}
          step={1}
          min={1}
          max={64}
          onChange={(v, g) => weighed({ wallRows: Math.round(v) }, g)}
        />{' '}
        {!rows.isMixed && rows.value === 1 ? 'row' : 'rows'} of faces.
      </Sentence>
      {said}
    </>
  );
}
