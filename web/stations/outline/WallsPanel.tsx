// WallsPanel.tsx — walls of a plan: found between parallel lines or drawn, as sentences about their sizes and openings.
import {
  OPENING_KINDS,
  type OpeningKind,
  type Source,
  type Swing,
  USUAL_SWING,
  type Wall,
} from '../../../core/index.ts';
import { Choice } from '../../controls/Choice.tsx';
import { Panel, Sentence } from '../../controls/Panel.tsx';
import { TextButton } from '../../controls/TextButton.tsx';
import { Value } from '../../controls/Value.tsx';
import { countOf } from '../../format.ts';
import { drawing } from '../../store/drawing.ts';
import { takeTool, useOutline } from '../../store/outline.ts';
import { useDocument } from '../../store/project.ts';
import {
  changedOpening,
  changedWall,
  findPlanWalls,
  listedWalls,
  removeChosenWall,
  setWalls,
  useWalls,
  wallLimits,
  wallsAlongChosen,
  wallThickness,
  walls as wallTool,
} from '../../store/walls.ts';
import { SnapSentence } from './SnapSentence.tsx';

const figure = (v: number) => Number(v.toPrecision(6));

export function WallsPanel({ source }: { source: Source }) {
  const walls = listedWalls(source);
  return (
    <Panel title="Walls" aside={walls.length > 0 && <span className="text-quiet">{summary(walls)}</span>}>
      {walls.length === 0 ? <FindWalls source={source} /> : <WallSizes source={source} walls={walls} />}
      <p className="mt-2 flex gap-4 text-sm">
        <TextButton
          onClick={() => {
            drawing.set({ figure: 'wall' });
            void takeTool('draw');
          }}
        >
          Draw walls
        </TextButton>
        <TextButton onClick={() => void takeTool('choose')}>Done</TextButton>
      </p>
    </Panel>
  );
}

function summary(walls: readonly Wall[]): string {
  const openings = walls.reduce((sum, wall) => sum + wall.openings.length, 0);
  return `${countOf(walls.length, 'wall')}, ${countOf(openings, 'opening')}`;
}

function FindWalls({ source }: { source: Source }) {
  const document = useDocument();
  const { chosen, view } = useOutline();
  const { limits: wanted, thickness: wish, busy } = useWalls();
  const limits = wallLimits(document, wanted);
  const thickness = wallThickness(document, wish);
  const { unit } = document;
  const set = (change: Partial<typeof limits>) => wallTool.set({ limits: { ...limits, ...change } });
  const size = view ? Math.max(view.sheet.width, view.sheet.height) * source.scale : 0;
  return (
    <>
      <Sentence>
        Walls are from{' '}
        <Value
          label="Thinnest wall"
          value={limits.thinnest}
          unit={unit}
          step={limits.thinnest / 10}
          onChange={(v) => set({ thinnest: v })}
        />{' '}
        to{' '}
        <Value
          label="Thickest wall"
          value={limits.thickest}
          unit={unit}
          step={limits.thickest / 10}
          onChange={(v) => set({ thickest: v })}
        />{' '}
        thick, their openings up to{' '}
        <Value
          label="Widest opening"
          value={limits.widest}
          unit={unit}
          step={limits.widest / 10}
          onChange={(v) => set({ widest: v })}
        />{' '}
        wide.
      </Sentence>
      <button
        type="button"
        disabled={busy}
        className="w-full rounded-edge bg-tide px-3 py-1.5 text-sheet"
        onClick={() => void findPlanWalls()}
      >
        Find walls in {chosen.length > 0 ? countOf(chosen.length, 'chosen shape') : 'all shapes'}
      </button>
      {size > 0 && size < 10 * limits.thickest && (
        <p className="mt-1 text-quiet text-sm">
          The plan is only {figure(size)} {unit} across: set its real size first, by a length you know.
        </p>
      )}
      {chosen.length > 0 && (
        <Sentence>
          Or <TextButton onClick={() => void wallsAlongChosen()}>make walls along the chosen lines</TextButton>,{' '}
          <Value
            label="Thickness of walls along lines"
            value={thickness}
            unit={unit}
            step={thickness / 10}
            onChange={(v) => wallTool.set({ thickness: v })}
          />{' '}
          thick.
        </Sentence>
      )}
    </>
  );
}

/** Thicknesses that differ by less are shown as one. */
const ALIKE = 1e-4;

function WallSizes({ source, walls }: { source: Source; walls: readonly Wall[] }) {
  const { unit } = useDocument();
  const { wall: chosen, opening: chosenOpening, placing } = useWalls();
  const thicknesses = [...new Set(walls.map(({ thickness }) => figure(thickness)))].sort((a, b) => b - a);
  const isAlike = (wall: Wall, thickness: number) => Math.abs(wall.thickness / thickness - 1) < ALIKE;
  const wall = walls.find(({ id }) => id === chosen);
  const opening = wall?.openings.find(({ id }) => id === chosenOpening);
  const change = (next: readonly Wall[], gesture: string | null) => setWalls(source, next, gesture);
  const length = (v: number) => figure(v * source.scale);
  return (
    <>
      {thicknesses.map((thickness) => (
        <Sentence key={thickness}>
          {countOf(walls.filter((each) => isAlike(each, thickness)).length, 'wall')}{' '}
          <Value
            label={`Thickness of walls ${length(thickness)} thick`}
            value={length(thickness)}
            unit={unit}
            min={1e-6}
            step={length(thickness) / 20}
            onChange={(v, gesture) =>
              change(
                walls.map((each) => (isAlike(each, thickness) ? { ...each, thickness: v / source.scale } : each)),
                gesture,
              )
            }
          />{' '}
          thick.
        </Sentence>
      ))}
      <p className="flex gap-4 text-sm">
        {OPENING_KINDS.map((kind) => (
          <TextButton key={kind} onClick={() => wallTool.set({ placing: placing === kind ? null : kind })}>
            {placing === kind ? `Click the wall for the ${kind}` : `Add a ${kind}`}
          </TextButton>
        ))}
      </p>
      <Sentence>
        Wall{' '}
        <Value
          label="Number of the wall"
          value={wall ? walls.indexOf(wall) + 1 : 0}
          min={1}
          max={walls.length}
          step={1}
          onChange={(v) => wallTool.set({ wall: walls[Math.round(v) - 1]!.id, opening: null })}
        />{' '}
        of {walls.length}
        {wall && wall.openings.length > 0 && (
          <>
            , its opening{' '}
            <Value
              label="Number of the opening"
              value={opening ? wall.openings.indexOf(opening) + 1 : 0}
              min={1}
              max={wall.openings.length}
              step={1}
              onChange={(v) => wallTool.set({ opening: wall.openings[Math.round(v) - 1]!.id })}
            />{' '}
            of {wall.openings.length}
          </>
        )}
        . Arrow keys move it.
      </Sentence>
      {!wall && (
        <p className="mt-2 text-quiet text-sm">
          Drag ends, walls and openings; drag a jamb to widen an opening. Click one to see its sizes.
        </p>
      )}
      {wall && !opening && (
        <Sentence>
          This wall is{' '}
          <Value
            label="Thickness of the wall"
            value={length(wall.thickness)}
            unit={unit}
            min={1e-6}
            step={length(wall.thickness) / 20}
            onChange={(v, gesture) =>
              change(
                changedWall(walls, wall.id, (each) => ({ ...each, thickness: v / source.scale })),
                gesture,
              )
            }
          />{' '}
          thick. <TextButton onClick={removeChosenWall}>Remove it</TextButton>
        </Sentence>
      )}
      {opening && (
        <Sentence>
          This{' '}
          <Choice<OpeningKind>
            label="Kind of opening"
            value={opening.kind}
            options={OPENING_KINDS.map((kind) => [kind, kind] as const)}
            onChange={(kind) => change(changedOpening(walls, opening.id, { kind }), null)}
          />{' '}
          is{' '}
          {(
            [
              ['width', 'wide, its sill'],
              ['sill', 'and its head'],
              ['head', 'above the floor.'],
            ] as const
          ).map(([key, words]) => (
            <span key={key}>
              <Value
                label={`Opening ${key}`}
                value={length(opening[key])}
                unit={unit}
                min={key === 'width' ? 1e-6 : 0}
                step={length(opening.width) / 20}
                onChange={(v, gesture) =>
                  change(changedOpening(walls, opening.id, { [key]: v / source.scale }), gesture)
                }
              />{' '}
              {words}{' '}
            </span>
          ))}
        </Sentence>
      )}
      {opening && (
        <p className="flex flex-wrap gap-x-4 text-sm">
          {opening.kind === 'door' && (
            <SwingWords
              swing={opening.swing ?? USUAL_SWING}
              onChange={(swing) => change(changedOpening(walls, opening.id, { swing }), null)}
            />
          )}
          <TextButton onClick={removeChosenWall}>Remove it</TextButton>
        </p>
      )}
      <SnapSentence source={source} />
    </>
  );
}

/** How a door hangs, and what would turn it. */
function SwingWords({ swing, onChange }: { swing: Swing; onChange: (swing: Swing) => void }) {
  const { hinge, side } = swing;
  return (
    <>
      {hinge !== 'both' && (
        <TextButton onClick={() => onChange({ side, hinge: hinge === 'start' ? 'end' : 'start' })}>
          Hang it at its other jamb
        </TextButton>
      )}
      <TextButton onClick={() => onChange({ hinge, side: side === 'left' ? 'right' : 'left' })}>
        Open it to the other side
      </TextButton>
      <TextButton onClick={() => onChange({ side, hinge: hinge === 'both' ? 'start' : 'both' })}>
        {hinge === 'both' ? 'Give it one leaf' : 'Give it two leaves'}
      </TextButton>
    </>
  );
}
