// WorkView.tsx — the middle: flat outlines, the solid, or both sides of a divide that can be dragged.
import { Box, FlipHorizontal2, Frame, Grid2x2Check, Grid3x3, Image, PaintRoller, Square } from 'lucide-react';
import { Suspense, useCallback, useState } from 'react';
import { Choice } from '../controls/Choice.tsx';
import { IconButton } from '../controls/IconButton.tsx';
import { later } from '../controls/later.ts';
import { SplitHandle } from '../controls/SplitHandle.tsx';
import { hasWebGl } from '../scene/webgl.ts';
import type { Desk, Station } from '../stations/kind.ts';
import { ImportNotes } from '../stations/source/ImportNotes.tsx';
import { useDocumentPart } from '../store/project.ts';
import { type Backdrop, DIRECTIONS, type Direction, screen, useScreen } from '../store/screen.ts';
import { PanelEdge } from './PanelEdge.tsx';

// The 3D library is most of the code; the rest of the workplace does not wait for it.
const SolidView = later(
  () => import('../scene/SolidView.tsx'),
  (module) => module.SolidView,
);

const BACKDROP_CLASS: Record<Backdrop, string> = { light: 'bg-[#f1f1f0]', grey: 'bg-view', checkered: 'checkered' };

export function WorkView({ station: { desk, listsArrivals } }: { station: Station }) {
  const chosen = useScreen((state) => state.split);
  const isFlat = !hasWebGl();
  const split = desk.isDivided && !isFlat ? chosen : 1;
  const backdrop = useScreen((state) => state.backdrop);
  const place = useScreen((state) => state.place);
  const [isSolidThere, setSolidThere] = useState(false);
  const onFramed = useCallback(() => setSolidThere(true), []);
  // What waits for the first build sees the outlines meanwhile.
  const flatShare = split > 0 || isSolidThere ? split : 1;
  const isEmpty = useDocumentPart(({ sources }) => sources.length === 0);
  return (
    <main
      className={`relative col-start-2 h-full overflow-hidden max-md:col-start-1 max-md:row-start-2 max-md:h-[70vh] ${BACKDROP_CLASS[backdrop]}`}
      aria-label="Work"
      data-place={place?.at.map((v) => v.toFixed(2)).join(' ')}
    >
      {split < 1 && !isEmpty && (
        <div className="absolute inset-0" style={{ clipPath: `inset(0 0 0 ${split * 100}%)` }}>
          <Suspense fallback={null}>
            <SolidView onFramed={onFramed} />
          </Suspense>
        </div>
      )}
      {flatShare > 0 && !isEmpty && (
        <div className="absolute inset-0" style={{ clipPath: `inset(0 ${(1 - flatShare) * 100}% 0 0)` }}>
          <Suspense fallback={null}>
            <desk.flat />
          </Suspense>
        </div>
      )}
      {isEmpty && <EmptySheet />}
      {isFlat && desk.isDivided && !isEmpty && <NoSolid />}
      {desk.isDivided && !isFlat && !isEmpty && (
        <SplitHandle
          label="Divide between flat and solid"
          share={split}
          onChange={(share) => screen.setSplit(share < 0.03 ? 0 : share > 0.97 ? 1 : share)}
        />
      )}
      <PanelEdge panel="stack" side="left" />
      <PanelEdge panel="station" side="right" />
      {!listsArrivals && <ImportNotes />}
      {!isEmpty && <ViewTools desk={desk} split={split} />}
    </main>
  );
}

function NoSolid() {
  return (
    <p className="absolute bottom-3 left-1/2 z-10 w-max max-w-[80%] -translate-x-1/2 rounded-edge border border-rule bg-sheet px-3 py-1.5 text-sm">
      This browser draws no solids: WebGL 2 is switched off or missing. Outlines, stack, proof and export work all the
      same.
    </p>
  );
}

function EmptySheet() {
  return (
    <div className="grid h-full place-items-center p-10">
      <div className="max-w-sm rounded-edge border border-ink/30 border-dashed bg-sheet/80 p-8 text-center">
        <h2 className="font-serif text-2xl">An empty sheet</h2>
        <p className="mt-2 text-quiet">
          Drop a picture, a drawing or a mesh here, paste one, or choose it at the Source station.
        </p>
      </div>
    </div>
  );
}

function ViewTools({ desk, split }: { desk: Desk; split: number }) {
  const { backdrop, wire, checker, plaster, behind, look } = useScreen();
  return (
    <div className="absolute top-3 right-3 z-10 flex max-w-[calc(100%-1.5rem)] flex-wrap items-center justify-end gap-1 rounded-edge border border-rule bg-sheet px-1.5 py-0.5 text-sm">
      {desk.isDivided && hasWebGl() && (
        <>
          <IconButton
            icon={Square}
            label="Flat outlines"
            keys="V"
            pressed={split === 1}
            onClick={() => screen.setSplit(1)}
          />
          <IconButton
            icon={FlipHorizontal2}
            label="Both, divided"
            keys="V"
            pressed={split > 0 && split < 1}
            onClick={screen.divide}
          />
          <IconButton icon={Box} label="Solid" keys="V" pressed={split === 0} onClick={() => screen.setSplit(0)} />
          <span className="mx-1 h-5 w-px bg-rule" />
          <IconButton icon={Grid3x3} label="Edges of all faces" keys="E" pressed={wire} onClick={screen.toggleWire} />
          <IconButton icon={PaintRoller} label="Plaster" keys="P" pressed={plaster} onClick={screen.togglePlaster} />
          <IconButton icon={Image} label="Source behind the solid" pressed={behind} onClick={screen.toggleBehind} />
          <IconButton
            icon={Grid2x2Check}
            label="Checker where layers lie on pictures"
            pressed={checker}
            onClick={screen.toggleChecker}
          />
          <Choice<Direction>
            label="Look from"
            value={look.direction}
            options={DIRECTIONS.map((direction) => [direction, direction] as const)}
            onChange={screen.lookFrom}
          />
        </>
      )}
      <Suspense fallback={null}>{desk.tools && <desk.tools />}</Suspense>
      <IconButton icon={Frame} label="Frame everything" keys="Alt 1" onClick={() => screen.lookFrom(look.direction)} />
      <Choice<Backdrop>
        label="Backdrop"
        value={backdrop}
        options={[
          ['light', 'light'],
          ['grey', 'grey'],
          ['checkered', 'checkered'],
        ]}
        onChange={screen.setBackdrop}
      />
    </div>
  );
}
