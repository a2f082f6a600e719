// PointsPanel.tsx — what can be done with the chosen points of a shape.
import {
  closeLine,
  linesOf,
  makeCorners,
  makeSmooth,
  movePoints,
  openAt,
  parsePath,
  type Source,
  straighten,
} from '../../../core/index.ts';
import { Panel, Sentence } from '../../controls/Panel.tsx';
import { TextButton } from '../../controls/TextButton.tsx';
import { Value } from '../../controls/Value.tsx';
import {
  changePoints,
  commitLines,
  outline,
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
  const moveTo = (axis: 0 | 1) => (v: number) => {
    if (!single) return;
    const target = axis === 0 ? v / source.scale + source.origin[0] : source.origin[1] - v / source.scale;
    const by = target - single.at[axis];
    changePoints((line, which) => movePoints(line, which, axis === 0 ? by : 0, axis === 1 ? by : 0));
  };
  return (
    <Panel title="Points" aside={<span className="figure text-quiet">{`${points.length} of ${shape.points}`}</span>}>
      {points.length === 0 ? (
        <p className="text-quiet text-sm">
          Click a point, drag it or its handles: with Shift handles mirror each other, with Alt one moves alone.
          Double-click the line to put a point in.
        </p>
      ) : (
        <p className="flex flex-wrap gap-x-3 gap-y-1 text-sm">
          <TextButton onClick={() => changePoints(makeSmooth)}>smooth</TextButton>
          <TextButton onClick={() => changePoints(makeCorners)}>corner</TextButton>
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
