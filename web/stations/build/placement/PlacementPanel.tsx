// PlacementPanel.tsx — where the chosen things stand, how they are turned and about what, and in how many copies.
import { Maximize2, Move3d, Rotate3d } from 'lucide-react';
import { useState } from 'react';
import { type Axis, MIDDLES, type Middle, type Placement, UNPLACED } from '../../../../core/index.ts';
import { Choice } from '../../../controls/Choice.tsx';
import { Folded } from '../../../controls/Folded.tsx';
import { IconButton } from '../../../controls/IconButton.tsx';
import { Note, Panel, Sentence } from '../../../controls/Panel.tsx';
import { TextButton } from '../../../controls/TextButton.tsx';
import { Value } from '../../../controls/Value.tsx';
import { formatNumber } from '../../../format.ts';
import { useBuild } from '../../../store/build.ts';
import {
  type AlignTo,
  align,
  distribute,
  middlesApart,
  mirror,
  place,
  setMiddle,
  setStance,
  sink,
  type Thing,
  toFloor,
  turnEach,
  unplace,
} from '../../../store/placing.ts';
import { useDocumentPart } from '../../../store/project.ts';
import { type Handles, screen, useScreen } from '../../../store/screen.ts';
import { type AtLeastOne, niceStep, readingOf } from '../recipe/several.tsx';
import { CopiesSentence } from './CopiesSentence.tsx';
import { SizeSentence } from './SizeSentence.tsx';

const AXES = ['x', 'y', 'z'] as const;
const WAYS = ['across', 'up', 'forward'] as const;

const MIDDLE_WORDS: Record<(typeof MIDDLES)[number], string> = {
  box: 'middle of its box',
  area: 'middle of its area',
  volume: 'middle of its volume',
  bottom: 'middle of its underside',
};

const HANDLES: readonly (readonly [Handles, typeof Move3d, string, string])[] = [
  ['move', Move3d, 'Move by hand in the view', 'M'],
  ['turn', Rotate3d, 'Turn by hand in the view', 'T'],
  ['size', Maximize2, 'Size by hand in the view', 'S'],
];

export function PlacementPanel({ things }: { things: AtLeastOne<Thing> }) {
  const unit = useDocumentPart((document) => document.unit);
  const handles = useScreen((state) => state.handles);
  const [thing] = things;
  const of = readingOf(things);
  const size = useBuild((state) => state.view?.box);
  const step = niceStep(size ? Math.max(...size.max.map((v, k) => v - size.min[k]!)) : 10);
  const change = (to: (placement: Placement) => Partial<Placement>, gesture: string | null) =>
    place(things, ({ placement }) => ({ ...placement, ...to(placement) }), gesture);
  return (
    <Panel
      title="Placement"
      aside={
        <span className="flex">
          {HANDLES.map(([kind, icon, label, keys]) => (
            <IconButton
              key={kind}
              icon={icon}
              label={label}
              keys={keys}
              pressed={handles === kind}
              className="!size-7"
              onClick={() => screen.toggleHandles(kind)}
            />
          ))}
        </span>
      }
    >
      <Sentence>
        {things.length > 1 ? <b>Each</b> : <b>{thing.name}</b>} stands{' '}
        {WAYS.map((way, k) => (
          <span key={way}>
            {k === 2 && 'and '}
            <Value
              label={`Moved ${way}`}
              {...of(({ placement }) => placement.move[k]!)}
              unit={unit}
              step={step}
              min={-1e6}
              onChange={(v, g) => change(({ move }) => ({ move: withAxis(move, k, v) }), g)}
            />{' '}
            {way}
            {k < 2 ? ', ' : ' '}
          </span>
        ))}
        from where it was drawn, turned{' '}
        {AXES.map((axis, k) => (
          <span key={axis}>
            <Value
              label={`Turned about ${axis}`}
              {...of(({ placement }) => placement.turn[k]!)}
              unit="°"
              step={5}
              min={-36_000}
              max={36_000}
              onChange={(v, g) => change(({ turn }) => ({ turn: withAxis(turn, k, v) }), g)}
            />{' '}
            about {axis}
            {k < 2 ? ', ' : ' '}
          </span>
        ))}
        through the <MiddleChoice things={things} />.
      </Sentence>
      <LopsidedNote thing={thing} isAlone={things.length === 1} unit={unit} />
      <p className="flex flex-wrap gap-x-4 gap-y-1 text-sm">
        <TextButton onClick={() => setStance(things, 'upright')}>Stand up</TextButton>
        <TextButton onClick={() => setStance(things, 'flat')}>Lie down</TextButton>
        <TextButton onClick={() => setStance(things, 'front')}>Face front</TextButton>
        <TextButton onClick={() => mirror(things)}>Mirror</TextButton>
        <TextButton onClick={() => toFloor(things)}>Drop to the floor</TextButton>
        <TextButton onClick={screen.spin}>Show a turn</TextButton>
        {things.some(({ placement }) => placement !== UNPLACED) && (
          <TextButton onClick={() => unplace(things)}>As drawn</TextButton>
        )}
      </p>
      <Folded title="By a turn, a size, copies">
        <TurnSentence things={things} />
        <SinkSentence things={things} unit={unit} step={step} />
        <SizeSentence things={things} unit={unit} />
        <CopiesSentence things={things} unit={unit} step={step} />
      </Folded>
      {things.length > 1 && <AlignSentence things={things} unit={unit} step={step} />}
    </Panel>
  );
}

const withAxis = (point: Placement['move'], axis: number, v: number) =>
  point.map((old, k) => (k === axis ? v : old)) as unknown as Placement['move'];

const PICKED = 'picked';

function MiddleChoice({ things }: { things: AtLeastOne<Thing> }) {
  const place = useScreen((state) => state.place);
  const { value, isMixed } = readingOf(things)(({ placement: { middle } }) =>
    typeof middle === 'string' ? middle : PICKED,
  );
  const options: (readonly [string, string])[] = MIDDLES.map((middle) => [middle, MIDDLE_WORDS[middle]]);
  // A place that the proof points at can be turned about.
  if (place || value === PICKED) options.push([PICKED, 'point that is pointed at']);
  return (
    <Choice<string>
      label="Turned about"
      value={value}
      isMixed={isMixed}
      options={options}
      onChange={(middle) => {
        if (middle !== PICKED) setMiddle(things, middle as Middle);
        else if (place) setMiddle(things, [...place.at]);
      }}
    />
  );
}

/** What turns about the middle of its box looks lopsided where its area has another. */
function LopsidedNote({ thing, isAlone, unit }: { thing: Thing; isAlone: boolean; unit: string }) {
  const placed = useBuild((state) => state.view?.placed[thing.id]);
  const { middle } = thing.placement;
  if (!placed || !isAlone || (middle !== 'box' && middle !== 'area')) return null;
  const { apart, share } = middlesApart(placed);
  if (share < SEEN_SHARE) return null;
  const other = middle === 'box' ? 'area' : 'box';
  return (
    <Note>
      The middle of its area lies {formatNumber(apart)} {unit} from that of its box
      {middle === 'box' ? ': turning, it looks lopsided' : ''}.{' '}
      <TextButton onClick={() => setMiddle([thing], other)}>{`Turn it about the middle of its ${other}`}</TextButton>
    </Note>
  );
}

/** Of a thing's size: less of a wobble is not seen. */
const SEEN_SHARE = 0.005;

function TurnSentence({ things }: { things: AtLeastOne<Thing> }) {
  const [by, setBy] = useState<{ degrees: number; axis: Axis; of: 'own' | 'world' }>({
    degrees: 90,
    axis: 'y',
    of: 'own',
  });
  return (
    <Sentence>
      <TextButton onClick={() => turnEach(things, by.axis, by.degrees, by.of)}>Turn</TextButton> by{' '}
      <Value
        label="Turn by"
        value={by.degrees}
        unit="°"
        step={5}
        min={-360}
        max={360}
        onChange={(degrees) => setBy({ ...by, degrees })}
      />{' '}
      about{' '}
      <Choice
        label="Whose axes"
        value={by.of}
        options={[
          ['own', 'its own'],
          ['world', 'the world’s'],
        ]}
        onChange={(of) => setBy({ ...by, of })}
      />{' '}
      <Choice
        label="Axis"
        value={by.axis}
        options={AXES.map((axis) => [axis, axis] as const)}
        onChange={(axis) => setBy({ ...by, axis })}
      />{' '}
      axis.
    </Sentence>
  );
}

interface LengthProps {
  things: AtLeastOne<Thing>;
  unit: string;
  step: number;
}

/** By a length, or by a share of how high each is. */
function SinkSentence({ things, unit }: LengthProps) {
  const [share, setShare] = useState(100 / 3);
  const [length, setLength] = useState<number | null>(null);
  return (
    <Sentence>
      <TextButton onClick={() => sink(things, length === null ? { share: share / 100 } : { length })}>Sink</TextButton>{' '}
      it into the floor by{' '}
      {length === null ? (
        <Value label="Sunk share" value={share} unit="%" step={5} max={100} onChange={setShare} />
      ) : (
        <Value label="Sunk length" value={length} unit={unit} step={niceStep(length)} onChange={setLength} />
      )}{' '}
      <Choice
        label="Sunk by"
        value={length === null ? 'share' : 'length'}
        options={[
          ['share', 'of its height'],
          ['length', 'as a length'],
        ]}
        onChange={(by) => setLength(by === 'length' ? 1 : null)}
      />
      .
    </Sentence>
  );
}

function AlignSentence({ things, unit, step }: LengthProps) {
  const [axis, setAxis] = useState<0 | 1 | 2>(0);
  const [gap, setGap] = useState(0);
  const ends: readonly (readonly [AlignTo, string])[] = [
    ['least', ['left', 'bottom', 'back'][axis]!],
    ['middle', 'middle'],
    ['most', ['right', 'top', 'front'][axis]!],
  ];
  return (
    <>
      <Sentence>
        In line{' '}
        <Choice
          label="Align along"
          value={String(axis)}
          options={WAYS.map((way, k) => [String(k), way] as const)}
          onChange={(k) => setAxis(Number(k) as 0 | 1 | 2)}
        />
        :{' '}
        {ends.map(([to, words]) => (
          <span key={to} className="mr-3">
            <TextButton onClick={() => align(things, axis, to)}>{words}</TextButton>
          </span>
        ))}
      </Sentence>
      <Sentence>
        <TextButton onClick={() => distribute(things, axis)}>Equal gaps</TextButton> between the outermost, or{' '}
        <TextButton onClick={() => distribute(things, axis, gap)}>side by side</TextButton> with{' '}
        <Value label="Gap" value={gap} unit={unit} step={step} min={-1e6} onChange={setGap} /> between them.
      </Sentence>
    </>
  );
}
