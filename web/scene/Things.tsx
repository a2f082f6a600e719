// Things.tsx — the layers of a document as solids.
import { type BuildView, type Layer, STAY } from '../../core/index.ts';
import { useOpenLayers } from '../store/open.ts';
import { useScreen } from '../store/screen.ts';
import { CHECKER_SHARE } from './checker.ts';
import { Slab } from './Slab.tsx';

/** Light enough to show every shadow, dull enough to show no light. */
const PLASTER = { colour: '#cfcbc2', roughness: 1, metalness: 0, opacity: 1 } as const;
/** Of what came in after the last build. */
const AS_DRAWN = [STAY];

interface ThingsProps {
  layers: readonly Layer[];
  view: BuildView | null;
  hidden: readonly string[];
  plaster: boolean;
  wire: boolean;
  /** Whether nothing says which of them are chosen. */
  isPlain?: boolean;
}

export function Things({ layers, view, hidden, plaster, wire, isPlain = false }: ThingsProps) {
  const open = new Set(useOpenLayers().map(({ id }) => id));
  const meshes = new Map(view?.layers.map(({ id, mesh }) => [id, mesh]));
  const checker = useScreen((state) => state.checker);
  return layers.map(({ id, shown, base, material, sideMaterials, uv, build }) => {
    const mesh = meshes.get(id);
    const square = uv === 'units' && 'cell' in build ? build.cell : CHECKER_SHARE;
    return shown && mesh && !hidden.includes(id) ? (
      <Slab
        key={id}
        id={id}
        base={base}
        places={view?.placed[id]?.places ?? AS_DRAWN}
        material={plaster ? PLASTER : material}
        sideMaterials={plaster ? undefined : sideMaterials}
        square={checker && uv !== 'none' ? square : null}
        mesh={mesh}
        wire={wire}
        isOpen={open.has(id)}
        isPlain={isPlain}
      />
    ) : null;
  });
}
