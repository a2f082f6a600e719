// FrontSentence.tsx — the form of fronts: flat, slanted, crowned.
import { DOMES, type FrontShape, type Slab, type ViewBox } from '../../../../../core/index.ts';
import { Choice } from '../../../../controls/Choice.tsx';
import { Note, Sentence } from '../../../../controls/Panel.tsx';
import { Value } from '../../../../controls/Value.tsx';
import { useBuild } from '../../../../store/build.ts';
import { useDocumentPart } from '../../../../store/project.ts';
import { type AtLeastOne, niceStep, type Reading } from '../several.tsx';
import type { BuildSentencesProps, LayerOf } from './index.ts';

interface FrontSentenceProps extends Pick<BuildSentencesProps<'slab'>, 'step' | 'change'> {
  layers: AtLeastOne<LayerOf<'slab'>>;
  of: Reading<Slab>;
}

const FORMS = [
  ['flat', 'flat'],
  ['slanted', 'slanted'],
  ['crowned', 'crowned'],
] as const;

const DOME_WORDS: Record<(typeof DOMES)[number], string> = {
  round: 'like a quarter circle',
  soft: 'softly',
  straight: 'straight, like a roof',
};

const FLAT: FrontShape = { is: 'flat' };

export function FrontSentence({ layers, of, step, change }: FrontSentenceProps) {
  const unit = useDocumentPart((document) => document.unit);
  const { id, build } = layers[0];
  const box = useBuild((state) => state.view?.placed[id]?.box) ?? null;
  const front = build.front ?? FLAT;
  const set = (next: FrontShape, gesture: string | null = null) => change({ front: next }, gesture);
  const begun: Record<FrontShape['is'], FrontShape> = {
    flat: FLAT,
    slanted: { is: 'slanted', degrees: startSlant(build.depth, box), towardsDeg: 90 },
    crowned: { is: 'crowned', height: Number((build.depth / 2).toPrecision(2)), dome: 'soft' },
  };
  return (
    <>
      <Sentence>
        Its front is{' '}
        <Choice<FrontShape['is']>
          label="Form of the front"
          {...of(({ front: own }) => own?.is ?? 'flat')}
          options={FORMS}
          onChange={(is) => set(begun[is])}
        />
        {front.is === 'slanted' && (
          <>
            , by{' '}
            <Value
              label="Slant"
              value={front.degrees}
              unit="°"
              step={1}
              min={-80}
              max={80}
              onChange={(degrees, g) => set({ ...front, degrees }, g)}
            />{' '}
            towards{' '}
            <Value
              label="Direction of the slant"
              value={front.towardsDeg}
              unit="°"
              step={15}
              min={-360}
              max={360}
              onChange={(towardsDeg, g) => set({ ...front, towardsDeg }, g)}
            />
          </>
        )}
        {front.is === 'crowned' && (
          <>
            , rising{' '}
            <Value
              label="Height of the crown"
              value={front.height}
              unit={unit}
              step={Math.min(step, niceStep(front.height))}
              min={-1e6}
              onChange={(height, g) => set({ ...front, height }, g)}
            />{' '}
            from its rim{' '}
            <Choice
              label="Shape of the crown"
              value={front.dome}
              options={DOMES.map((dome) => [dome, DOME_WORDS[dome]] as const)}
              onChange={(dome) => set({ ...front, dome })}
            />
          </>
        )}
        .
      </Sentence>
      {front.is === 'crowned' && build.faces === 'fewest' && (
        <Note>
          Its front has even triangles, so that there are points to rise; their size is that of the face mesh.
        </Note>
      )}
    </>
  );
}

/** What is seen to slant, degrees. */
const SLANT = 5;
/** Share of the depth that a slant to begin with may take, so that wall is left on the low side. */
const SLANT_SHARE = 0.4;

/** A slant that a body as deep and as large has room for, degrees. */
function startSlant(depth: number, box: ViewBox | null): number {
  if (!box) return SLANT;
  const half = Math.max(box.max[0] - box.min[0], box.max[1] - box.min[1]) / 2;
  const most = (Math.atan(SLANT_SHARE * (depth / half)) * 180) / Math.PI;
  return Math.min(SLANT, Number(most.toPrecision(2)));
}
