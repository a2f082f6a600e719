// PanelEdge.tsx — the line between a panel and the work: dragged or moved by the arrow keys, and a button that folds the panel away.
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { type PointerEvent, useRef } from 'react';
import { IconButton } from '../controls/IconButton.tsx';
import { type PanelName, panels, usePanels } from '../store/panels.ts';

const STEP = 16;
const NAMES: Record<PanelName, string> = { stack: 'the stack', station: 'the station' };

export function PanelEdge({ panel, side }: { panel: PanelName; side: 'left' | 'right' }) {
  const { width, isFolded } = usePanels((state) => state[panel]);
  const drag = useRef<{ x: number; width: number } | null>(null);
  const outward = side === 'left' ? 1 : -1;
  const move = (event: PointerEvent) => {
    const from = drag.current;
    if (from) panels.resize(panel, from.width + outward * (event.clientX - from.x));
  };
  const end = () => {
    drag.current = null;
  };
  const isToLeft = (side === 'left') !== isFolded;
  return (
    <div
      className={`absolute inset-y-0 z-20 w-0 max-md:hidden ${side === 'left' ? 'left-0' : 'right-0'}`}
      data-edge={panel}
    >
      {!isFolded && (
        // biome-ignore lint/a11y/useSemanticElements: an <hr> cannot be dragged or take keys
        <div
          role="separator"
          tabIndex={0}
          aria-label={`Width of ${NAMES[panel]}`}
          aria-orientation="vertical"
          aria-valuenow={width}
          aria-valuemin={panels.least}
          aria-valuemax={panels.most}
          className={`absolute bottom-12 flex h-16 w-6 cursor-col-resize touch-none items-center justify-center ${side === 'left' ? 'left-0' : 'right-0'}`}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            drag.current = { x: event.clientX, width };
          }}
          onPointerMove={move}
          onPointerUp={end}
          onPointerCancel={end}
          onKeyDown={(event) => {
            const way = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
            if (way === 0) return;
            event.stopPropagation();
            panels.resize(panel, width + way * outward * STEP);
          }}
        >
          <div className="h-10 w-1 rounded-edge bg-ink/30" />
        </div>
      )}
      <IconButton
        icon={isToLeft ? ChevronLeft : ChevronRight}
        label={isFolded ? `Show ${NAMES[panel]}` : `Fold ${NAMES[panel]} away`}
        className={`absolute bottom-3 size-6 border border-rule bg-sheet ${side === 'left' ? 'left-1' : 'right-1'}`}
        onClick={() => panels.fold(panel, !isFolded)}
      />
    </div>
  );
}
