// PointsPanel.tsx — what can be done with the chosen points of a shape.
import {
  alignPoints,
  closeLine,
  linesOf,
  makeCorners,
  makeSmooth,
  movePoints,
  openAt,
  parsePath,
  type Source,
  straighten,
  weldPoints,
} from '../../../core/index.ts';
import { Panel, Sentence } from '../../controls/Panel.tsx';
import { TextButton } from '../../controls/TextButton.tsx';
import { Value } from '../../controls/Value.tsx';
import {
  changePoints,
  commitLines,
  outline,
  pointKey,
  pointsByLine,
  removeChosen,
  takeTool,
  useOutline,
} from '../../store/outline.ts';
import { useDocumentPart } from '../../store/project.ts';
import { SnapSentence } from './SnapSentence.tsx';

export function PointsPanel({ source }: { source: Source }) {
  const unit = useDocumentPart((document) => document.unit);
  const { view, chosen, points } = useOutline();
  const shape = view?.shapes.find(({ id }) => id === chosen[0]);
  if (!shape) {
    return (
      <Panel title="Points">
        <p>Choose one shape to see its points.</p>
      </Panel>
    );
  }
  const lines = linesOf(parsePath(shape.d).path);
  const byLine = pointsByLine(points);
  const [only] = byLine;
  const single = points.length === 1 && only ? lines[only[0]]?.points[[...only[1]][0]!] : undefined;
  const isAnyOpen = lines.some((line) => !line.isClosed && line.points.length > 1);
  const keys = lines.flatMap((line, i) => line.points.map((_, k) => pointKey(i, k)));
  /** Onto the middle of those that are chosen. */
  const align = (axis: 0 | 1) => {
    const all = [...byLine].flatMap(([line, which]) => [...which].map((i) => lines[line]!.points[i]!.at[axis]));
    const middle = all.reduce((sum, v) => sum + v, 0) / all.length;
    changePoints((line, which) => alignPoints(line, which, axis, middle));
  };
  const moveTo = (axis: 0 | 1) => (v: number) => {
    if (!single) return;
    const target = axis === 0 ? v / source.scale + source.origin[0] : source.origin[1] - v / source.scale;
    const by = target - single.at[axis];
    changePoints((line, which) => movePoints(line, which, axis === 0 ? by : 0, axis === 1 ? by : 0));
  };
  return (
    <Panel title="Points" aside={<span className="figure text-quiet">{`${points.length} of ${keys.length}`}</span>}>
      <Sentence>
        Point{' '}
        <Value
          label="Number of the point"
          value={points.length === 1 ? keys.indexOf(points[0]!) + 1 : 0}
          min={1}
          max={Math.max(1, keys.length)}
          step={1}
          onChange={(v) => outline.set({ points: [keys[Math.round(v) - 1]!] })}
        />{' '}
        of {keys.length}, or <TextButton onClick={() => outline.set({ points: keys })}>all of them</TextButton>.
      </Sentence>
      {points.length === 0 ? (
        <p className="text-quiet text-sm">
          Click a point, drag it or its handles: with Shift handles mirror each other, with Alt one moves alone. Drag a
          box round several. Double-click the line to put a point in. Arrow keys move what is chosen.
        </p>
      ) : (
        <p className="flex flex-wrap gap-x-3 gap-y-1 text-sm">
          <TextButton
            onClick={() => {
              outline.set({ free: useOutline.getState().free.filter((key) => !points.includes(key)) });
              changePoints(makeSmooth);
            }}
          >
            smooth
          </TextButton>
          <TextButton onClick={() => outline.set({ free: [...new Set([...useOutline.getState().free, ...points])] })}>
            corner
          </TextButton>
          <TextButton onClick={() => changePoints(makeCorners)}>no handles</TextButton>
          {points.length > 1 && (
            <>
              <TextButton
                onClick={() => {
                  changePoints(weldPoints);
                  outline.set({ points: [] });
                }}
              >
                weld
              </TextButton>
              <TextButton onClick={() => align(1)}>align across</TextButton>
              <TextButton onClick={() => align(0)}>align upright</TextButton>
            </>
          )}
          <TextButton
            onClick={() => changePoints((line, which) => [...which].reduce((made, i) => straighten(made, i), line))}
          >
            straight after it
          </TextButton>
          <TextButton
            onClick={() => {
              changePoints((line, which) => openAt(line, [...which][0]!));
              outline.set({ points: [] });
            }}
          >
            open here
          </TextButton>
          <TextButton onClick={removeChosen}>delete</TextButton>
        </p>
      )}
      {single && (
        <Sentence>
          At{' '}
          <Value
            label="Across"
            value={Number(((single.at[0] - source.origin[0]) * source.scale).toPrecision(8))}
            min={-1e6}
            unit={unit}
            onChange={moveTo(0)}
          />{' '}
          across,{' '}
          <Value
            label="Up"
            value={Number(((source.origin[1] - single.at[1]) * source.scale).toPrecision(8))}
            min={-1e6}
            unit={unit}
            onChange={moveTo(1)}
          />{' '}
          up.
        </Sentence>
      )}
      {isAnyOpen && (
        <p className="text-sm">
          <TextButton onClick={() => void commitLines(shape.id, lines.map(closeLine))}>close the line</TextButton>
        </p>
      )}
      <SnapSentence source={source} />
      <p className="mt-2 text-sm">
        <TextButton onClick={() => void takeTool('choose')}>Done</TextButton>
      </p>
    </Panel>
  );
}
