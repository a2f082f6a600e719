// DrawPanel.tsx — what the pen draws, and how closely the drawing follows the picture beneath it.
import type { Source } from '../../../core/index.ts';
import { Choice } from '../../controls/Choice.tsx';
import { ColourField } from '../../controls/ColourField.tsx';
import { Panel, Sentence } from '../../controls/Panel.tsx';
import { TextButton } from '../../controls/TextButton.tsx';
import { Value } from '../../controls/Value.tsx';
import { drawing, drawnShapes, FIGURES, type Figure, penWidth, useDrawing } from '../../store/drawing.ts';
import { takeTool } from '../../store/outline.ts';
import { dispatch, useDocument } from '../../store/project.ts';
import { useWallThickness, walls as wallTool } from '../../store/walls.ts';
import { SnapSentence } from './SnapSentence.tsx';

const FIGURE_WORDS: Record<Figure, string> = {
  line: 'lines and curves',
  rectangle: 'rectangles',
  ellipse: 'ellipses',
  wall: 'walls',
};
const HELP: Record<Figure, string> = {
  line: 'Click for a corner, drag for a curve; click the first point to close, Enter or the last point to end. Begin at an end of an open line to go on with it.',
  rectangle: 'Drag from corner to corner; Shift makes it a square, Alt draws from the middle.',
  ellipse: 'Drag from corner to corner; Shift makes it a circle, Alt draws from the middle.',
  wall: 'Click from corner to corner; click the first corner to close, Enter or the last corner to end.',
};

export function DrawPanel({ source }: { source: Source }) {
  const { layers } = useDocument();
  const figure = useDrawing((state) => state.figure);
  const drawn = drawnShapes(source);
  const isDrawn = new Set(drawn);
  const others = layers.filter(
    ({ source: of, shown, members }) => of === source.id && shown && !members.some((id) => isDrawn.has(id)),
  );
  return (
    <Panel title="Draw">
      <Sentence>
        Draws{' '}
        <Choice<Figure>
          label="Figure"
          value={figure}
          options={FIGURES.map((each) => [each, FIGURE_WORDS[each]] as const)}
          onChange={(next) => drawing.set({ figure: next })}
        />
        {figure === 'wall' ? <WallStyle /> : <PenStyle source={source} />}
      </Sentence>
      <p className="text-quiet text-sm">{HELP[figure]}</p>
      <SnapSentence source={source} />
      {source.kind === 'picture' && drawn.length > 0 && others.length > 0 && (
        <p className="mt-1 text-sm">
          <TextButton
            onClick={() =>
              dispatch({ do: 'change-layers', layers: others.map(({ id }) => id), change: { shown: false } })
            }
          >
            Build the drawing alone
          </TextButton>
        </p>
      )}
      <p className="mt-2 text-sm">
        <TextButton onClick={() => void takeTool('choose')}>Done</TextButton>
      </p>
    </Panel>
  );
}

function PenStyle({ source }: { source: Source }) {
  const { isFilled, width, colour } = useDrawing();
  const unit = useDocument().unit;
  return (
    <>
      , closed ones{' '}
      <Choice
        label="Closed figures"
        value={isFilled ? 'filled' : 'lines'}
        options={[
          ['filled', 'filled'],
          ['lines', 'as lines'],
        ]}
        onChange={(next) => drawing.set({ isFilled: next === 'filled' })}
      />
      , lines{' '}
      <Value
        label="Width of the pen"
        value={penWidth(source, width)}
        unit={unit}
        min={1e-6}
        step={penWidth(source) / 10}
        onChange={(v) => drawing.set({ width: v })}
      />{' '}
      wide, in <ColourField label="Colour of the pen" value={colour} onChange={(v) => drawing.set({ colour: v })} />.
    </>
  );
}

function WallStyle() {
  const unit = useDocument().unit;
  const thickness = useWallThickness();
  return (
    <>
      ,{' '}
      <Value
        label="Thickness of walls to be drawn"
        value={thickness}
        unit={unit}
        min={1e-6}
        step={thickness / 10}
        onChange={(v) => wallTool.set({ thickness: v })}
      />{' '}
      thick.
    </>
  );
}
