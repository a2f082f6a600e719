// WorkView.tsx — the middle: flat outlines, the solid, or both sides of a divide that can be dragged.
import { Box, FlipHorizontal2, Frame, Grid2x2Check, Grid3x3, Square } from 'lucide-react';
import { lazy, Suspense } from 'react';
import { useLocation } from 'react-router';
import type { PictureSource, Source } from '../../core/index.ts';
import { Choice } from '../controls/Choice.tsx';
import { IconButton } from '../controls/IconButton.tsx';
import { SplitHandle } from '../controls/SplitHandle.tsx';
import { OutlineDesk } from '../outline/OutlineDesk.tsx';
import { OutlineTools } from '../outline/OutlineTools.tsx';
import { PictureDesk } from '../picture/PictureDesk.tsx';
import { PictureTools } from '../picture/PictureTools.tsx';
import { outlineSource, useOutline } from '../store/outline.ts';
import { useDocumentPart } from '../store/project.ts';
import { DIRECTIONS, type Direction, type Ground, screen, useScreen } from '../store/screen.ts';
import { useSourceView } from '../store/source-view.ts';
import { DropTarget } from './DropTarget.tsx';
import { FlatView } from './FlatView.tsx';
import { ImportNotes } from './ImportNotes.tsx';

// The 3D library is most of the code; the rest of the bench does not wait for it.
const SolidView = lazy(() => import('../scene/SolidView.tsx').then((module) => ({ default: module.SolidView })));

/** Stations that work on the sheet show it whole, whatever the divide stands at. */
const FLAT_STATIONS = ['source', 'outline'];
const GROUND_CLASS: Record<Ground, string> = { light: 'bg-[#f1f1f0]', grey: 'bg-view', checkered: 'checkered' };

export function WorkView() {
  const station = useLocation().pathname.split('/').at(-1) ?? '';
  const isFlatStation = FLAT_STATIONS.includes(station);
  const chosen = useScreen((state) => state.split);
  const split = isFlatStation ? 1 : chosen;
  const ground = useScreen((state) => state.ground);
  const place = useScreen((state) => state.place);
  const pictures = useDocumentPart(({ sources }) => sources);
  const wanted = useSourceView((state) => state.source);
  const picture = station === 'source' ? pictureOf(pictures, wanted) : null;
  const outlines = useOutlineSource(station);
  const isEmpty = useDocumentPart(({ sources }) => sources.length === 0);
  return (
    <DropTarget>
      <main
        className={`relative h-full overflow-hidden ${GROUND_CLASS[ground]}`}
        aria-label="Work"
        data-place={place?.map((v) => v.toFixed(2)).join(' ')}
      >
        {split < 1 && !isEmpty && (
          <div className="absolute inset-0" style={{ clipPath: `inset(0 0 0 ${split * 100}%)` }}>
            <Suspense fallback={null}>
              <SolidView />
            </Suspense>
          </div>
        )}
        {split > 0 && !isEmpty && (
          <div className="absolute inset-0" style={{ clipPath: `inset(0 ${(1 - split) * 100}% 0 0)` }}>
            <FlatDesk outlines={outlines} picture={picture} />
          </div>
        )}
        {isEmpty && <EmptySheet />}
        {!isFlatStation && !isEmpty && (
          <SplitHandle
            label="Divide between flat and solid"
            share={split}
            onChange={(share) => screen.setSplit(share < 0.03 ? 0 : share > 0.97 ? 1 : share)}
          />
        )}
        {station !== 'source' && <ImportNotes />}
        {!isEmpty && (
          <ViewTools isFlatStation={isFlatStation} split={split} picture={picture !== null} outlines={outlines} />
        )}
      </main>
    </DropTarget>
  );
}

/** What lies flat: the picture that is traced, the outlines that are edited, or all of the sheet. */
function FlatDesk({ outlines, picture }: { outlines: Source | null; picture: PictureSource | null }) {
  if (picture) return <PictureDesk key={picture.id} source={picture} />;
  return outlines ? <OutlineDesk key={outlines.id} source={outlines} /> : <FlatView />;
}

/** The source whose outlines are worked on, at the station for that. */
function useOutlineSource(station: string): Source | null {
  const document = useDocumentPart((present) => present);
  // Which source it is hangs on the selection too.
  useScreen((state) => state.selected);
  useOutline((state) => state.source);
  return station === 'outline' ? outlineSource(document) : null;
}

/** The picture that is worked on: the one chosen, else the first; null where the chosen source is none. */
function pictureOf(sources: readonly Source[], wanted: string | null): PictureSource | null {
  const chosen = sources.find(({ id }) => id === wanted) ?? sources.find(({ kind }) => kind === 'picture');
  return chosen?.kind === 'picture' ? chosen : null;
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

interface ViewToolsProps {
  isFlatStation: boolean;
  split: number;
  picture: boolean;
  outlines: Source | null;
}

function ViewTools({ isFlatStation, split, picture, outlines }: ViewToolsProps) {
  const { ground, wire, checker, look } = useScreen();
  return (
    <div className="absolute top-3 right-3 z-10 flex items-center gap-1 rounded-edge border border-rule bg-sheet px-1.5 py-0.5 text-sm">
      {!isFlatStation && (
        <>
          <IconButton icon={Square} label="Flat outlines" pressed={split === 1} onClick={() => screen.setSplit(1)} />
          <IconButton
            icon={FlipHorizontal2}
            label="Both, divided"
            pressed={split > 0 && split < 1}
            onClick={screen.divide}
          />
          <IconButton icon={Box} label="Solid" pressed={split === 0} onClick={() => screen.setSplit(0)} />
          <span className="mx-1 h-5 w-px bg-rule" />
          <IconButton icon={Grid3x3} label="Edges of all faces" pressed={wire} onClick={screen.toggleWire} />
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
      {picture && <PictureTools />}
      {outlines && <OutlineTools isPicture={outlines.kind === 'picture'} />}
      <IconButton icon={Frame} label="Frame everything" onClick={() => screen.lookFrom(look.direction)} />
      <Choice<Ground>
        label="Ground"
        value={ground}
        options={[
          ['light', 'light'],
          ['grey', 'grey'],
          ['checkered', 'checkered'],
        ]}
        onChange={screen.setGround}
      />
    </div>
  );
}
