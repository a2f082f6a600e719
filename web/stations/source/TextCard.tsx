// TextCard.tsx — a text and how it is set, as a sentence.
import { Type } from 'lucide-react';
import { useState } from 'react';
import { useDropzone } from 'react-dropzone';
import {
  ALIGNMENTS,
  BUNDLED_FONTS,
  type BundledFont,
  circleLine,
  circleOf,
  FONT_BUNDLES,
  type LetteringSource,
  parsePath,
  printPath,
  type Round,
  transformPath,
} from '../../../core/index.ts';
import { Choice } from '../../controls/Choice.tsx';
import { Note, Panel, Sentence } from '../../controls/Panel.tsx';
import { Tick } from '../../controls/Tick.tsx';
import { Value } from '../../controls/Value.tsx';
import { useBuild } from '../../store/build.ts';
import { addText, bringInFont, changeText, useLettering, useWishedText } from '../../store/lettering.ts';
import { DIGITS, outlineSource, useOutline } from '../../store/outline.ts';
import { useDocumentPart } from '../../store/project.ts';

/** A line to type a first text into. */
export function NewText() {
  const [text, setText] = useState('');
  const busy = useLettering((state) => state.busy);
  return (
    <form
      className="mt-2 flex items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim() === '') return;
        void addText(text);
        setText('');
      }}
    >
      <Type size={18} strokeWidth={1.5} className="shrink-0 text-tide" aria-hidden />
      <input
        aria-label="Text to set"
        placeholder="Set a text"
        dir="auto"
        value={text}
        data-draft={text || undefined}
        maxLength={400}
        className="min-w-0 flex-1 border-quiet border-b bg-transparent px-1 py-1"
        onChange={(event) => setText(event.target.value)}
      />
      <button
        type="submit"
        disabled={busy || text.trim() === ''}
        className="rounded-edge border border-rule bg-sheet px-2 py-1 text-sm hover:border-tide"
      >
        Set
      </button>
    </form>
  );
}

const ALIGNED = { start: 'at their start', middle: 'in the middle', end: 'at their end' } as const;

export function TextCard({ source }: { source: LetteringSource }) {
  const lettering = useWishedText(source);
  const unit = useDocumentPart((document) => document.unit);
  const failure = useLettering((state) => state.failure);
  const warnings = useBuild((state) => state.view?.sources.find(({ id }) => id === source.id)?.warnings);
  const { text, font, size, tracking, lineSpacing, align, kerning, ligatures } = lettering;
  const file = useDropzone({
    onDrop: ([dropped]) => dropped && void bringInFont(source, dropped),
    noClick: true,
    noDragEventsBubbling: true,
    multiple: false,
  });
  return (
    <Panel title="Lettering">
      <textarea
        aria-label="Text"
        dir="auto"
        rows={Math.min(6, Math.max(2, text.split('\n').length))}
        value={text}
        maxLength={4000}
        className="w-full resize-y rounded-edge border border-rule bg-sheet px-2 py-1 text-lg"
        onChange={(event) => changeText(source, { text: event.target.value }, `text ${source.id}`)}
      />
      <div {...file.getRootProps({ className: file.isDragActive ? 'bg-wash' : '' })}>
        <input {...file.getInputProps({ 'aria-label': 'Bring in a font' })} />
        <Sentence>
          Set in{' '}
          <Choice<BundledFont | 'file'>
            label="Font"
            value={font.from === 'bundle' ? font.name : 'file'}
            options={[
              ...BUNDLED_FONTS.map((name) => [name, FONT_BUNDLES[name].label.toLowerCase()] as const),
              ['file', font.from === 'file' ? font.name : 'a font of your own…'],
            ]}
            onChange={(name) => {
              if (name === 'file') file.open();
              else changeText(source, { font: { from: 'bundle', name } });
            }}
          />
          ,{' '}
          <Value
            label="Size"
            value={Number((size * source.scale).toPrecision(8))}
            unit={unit}
            min={1e-3}
            step={1}
            onChange={(v, gesture) => changeText(source, { size: v / source.scale }, gesture)}
          />{' '}
          to the em,{' '}
          <Value
            label="Tracking"
            value={tracking}
            min={-1000}
            max={10_000}
            step={10}
            onChange={(v, gesture) => changeText(source, { tracking: v }, gesture)}
          />{' '}
          thousandths of it between letters. Lines are{' '}
          <Value
            label="Line spacing"
            value={lineSpacing}
            max={100}
            step={0.05}
            onChange={(v, gesture) => changeText(source, { lineSpacing: v }, gesture)}
          />{' '}
          ems apart and even{' '}
          <Choice
            label="Alignment"
            value={align}
            options={ALIGNMENTS.map((each) => [each, ALIGNED[each]] as const)}
            onChange={(next) => changeText(source, { align: next })}
          />
          .
        </Sentence>
      </div>
      <AlongSentence source={source} />
      <p className="flex gap-4 text-sm">
        <Tick label="Kerning" isOn={kerning} onChange={(isOn) => changeText(source, { kerning: isOn })} />
        <Tick label="Ligatures" isOn={ligatures} onChange={(isOn) => changeText(source, { ligatures: isOn })} />
      </p>
      {warnings?.map(({ message }) => (
        <Note key={message}>{message}</Note>
      ))}
      {failure && <Note tone="ember">{failure}</Note>}
    </Panel>
  );
}

type Line = 'straight' | Round | 'shape';

/** Circles are this many ems wide at first. */
const CIRCLE = 6;

function AlongSentence({ source }: { source: LetteringSource }) {
  const { along, size } = useWishedText(source);
  const unit = useDocumentPart((document) => document.unit);
  const chosen = useChosenLine(source);
  const circle = along === null ? null : circleOf(along);
  const value: Line = along === null ? 'straight' : (circle?.side ?? 'shape');
  const round = (diameter: number, side: Round) =>
    changeText(
      source,
      { along: circleLine({ diameter, side, centre: source.origin }), align: 'middle' },
      `circle ${source.id}`,
    );
  return (
    <Sentence>
      It runs{' '}
      <Choice<Line>
        label="Line of the text"
        value={value}
        options={[
          ['straight', 'straight'],
          ['over', 'over a circle'],
          ['under', 'under a circle'],
          ...(chosen || value === 'shape' ? [['shape', 'along the chosen shape'] as const] : []),
        ]}
        onChange={(next) => {
          if (next === 'straight') changeText(source, { along: null });
          else if (next !== 'shape') round(circle?.diameter ?? CIRCLE * size, next);
          else if (chosen) changeText(source, { along: chosen });
        }}
      />
      {circle && (
        <>
          {' '}
          <Value
            label="Diameter of the circle"
            value={Number((circle.diameter * source.scale).toPrecision(6))}
            unit={unit}
            min={1e-3}
            step={Number((size * source.scale).toPrecision(1)) / 4}
            onChange={(v) => round(v / source.scale, circle.side)}
          />{' '}
          across
        </>
      )}
      .
    </Sentence>
  );
}

/** The line of the shape that is chosen at the Outline station, where the text would lie on it; null where there is none. */
function useChosenLine(text: LetteringSource): string | null {
  const document = useDocumentPart((present) => present);
  const { view, chosen } = useOutline();
  const shape = view?.shapes.find(({ id }) => id === chosen[0]);
  const from = outlineSource(document);
  if (!shape || !from || from.id === text.id) return null;
  const scale = from.scale / text.scale;
  const shift = ([x, y]: readonly [number, number], k: number) =>
    [text.origin[0] - x * k, text.origin[1] - y * k] as const;
  return printPath(transformPath(parsePath(shape.d).path, [scale, 0, 0, scale, ...shift(from.origin, scale)]), DIGITS);
}
