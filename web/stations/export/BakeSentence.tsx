// BakeSentence.tsx — whether everything goes into one picture, and how.
import { BAKE_DEFAULTS, BAKE_SIZES, type BakeWishes } from '../../../core/index.ts';
import { Choice } from '../../controls/Choice.tsx';
import { Sentence } from '../../controls/Panel.tsx';
import { Share } from '../../controls/Share.tsx';
import { Value } from '../../controls/Value.tsx';
import { formatNumber } from '../../format.ts';

interface BakeProps {
  /** Null where every part keeps its own materials. */
  bake: BakeWishes | null;
  onChange: (bake: BakeWishes | null) => void;
}

const OWN = 'own';

export function BakeSentence({ bake, onChange }: BakeProps) {
  return (
    <>
      <Sentence>
        Its parts{' '}
        <Choice<string>
          label="Materials of the file"
          value={bake ? String(bake.size) : OWN}
          options={[
            [OWN, 'keep their own materials'],
            ...BAKE_SIZES.map((size) => [String(size), `share a baked picture of ${formatNumber(size)} px`] as const),
          ]}
          onChange={(next) => {
            const size = BAKE_SIZES.find((each) => String(each) === next);
            onChange(size ? { ...(bake ?? BAKE_DEFAULTS), size } : null);
          }}
        />
        .
      </Sentence>
      {bake && (
        <Sentence>
          Where they meet they are{' '}
          <Share
            label="Contact shade"
            value={bake.shade}
            step={0.05}
            onChange={(shade) => onChange({ ...bake, shade })}
          />{' '}
          darker; the shade ends{' '}
          <Share
            label="Reach of the contact shade"
            value={bake.reach}
            min={0.001}
            onChange={(reach) => onChange({ ...bake, reach })}
          />{' '}
          of the whole size away. Every piece bleeds{' '}
          <Value
            label="Bleed"
            value={bake.bleed}
            unit="px"
            step={1}
            min={2}
            max={64}
            onChange={(bleed) => onChange({ ...bake, bleed: Math.round(bleed) })}
          />{' '}
          over its rim.
        </Sentence>
      )}
    </>
  );
}
