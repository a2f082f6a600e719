// SizeSentence.tsx — how large things are as they stand: typed as a length or a share, with depths and edges or without.
import { useState } from 'react';
import { Choice } from '../../../controls/Choice.tsx';
import { Sentence } from '../../../controls/Panel.tsx';
import { Tick } from '../../../controls/Tick.tsx';
import { Value } from '../../../controls/Value.tsx';
import { useBuild } from '../../../store/build.ts';
import { resize, type Thing } from '../../../store/placing.ts';
import { useDocumentPart } from '../../../store/project.ts';
import { type AtLeastOne, niceStep } from '../recipe/several.tsx';

const SIDES = ['wide', 'high', 'deep'] as const;

export function SizeSentence({ things, unit }: { things: AtLeastOne<Thing>; unit: string }) {
  const [side, setSide] = useState<0 | 1 | 2>(0);
  const [lengths, setLengths] = useState(false);
  const box = useBuild((state) => state.view?.placed[things[0].id]?.box);
  const scale = useDocumentPart(({ layers }) => layers.find(({ id }) => id === things[0].id)?.scale ?? 1);
  if (!box) return null;
  const size = box.max[side] - box.min[side];
  if (!(size > 0)) return null;
  return (
    <>
      <Sentence>
        It is{' '}
        <Value
          label="Size"
          value={Number(size.toPrecision(8))}
          unit={unit}
          step={niceStep(size)}
          min={size * 1e-3}
          onChange={(v, gesture) => resize(things, v / size, lengths, gesture)}
        />{' '}
        <Choice
          label="Measured"
          value={String(side)}
          options={SIDES.map((words, k) => [String(k), words] as const)}
          onChange={(k) => setSide(Number(k) as 0 | 1 | 2)}
        />
        {things.length === 1 && scale !== 1 && (
          <>
            , its outlines{' '}
            <Value
              label="Share of the source’s size"
              value={Number((100 * scale).toPrecision(6))}
              unit="%"
              step={5}
              min={0.01}
              max={1e6}
              onChange={(v, gesture) => resize(things, v / 100 / scale, lengths, gesture)}
            />{' '}
            of what they are in the source
          </>
        )}
        .
      </Sentence>
      <Tick label="Depths, edges and bases follow its size" isOn={lengths} onChange={setLengths} />
    </>
  );
}
