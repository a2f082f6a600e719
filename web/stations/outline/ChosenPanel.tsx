// ChosenPanel.tsx — what can be done with the chosen shapes, as sentences whose values are the controls.
import {
  Blend,
  Expand,
  EyeOff,
  Focus,
  type LucideIcon,
  PenLine,
  Scissors,
  Spline,
  SquaresExclude,
  SquaresIntersect,
  SquaresSubtract,
  SquaresUnite,
  Trash2,
  Ungroup,
} from 'lucide-react';
import { useState } from 'react';
import type { OutlineShape } from '../../../core/index.ts';
import { type EditAction, SORTINGS, type Sorting, type Source } from '../../../core/index.ts';
import { Choice } from '../../controls/Choice.tsx';
import { IconButton } from '../../controls/IconButton.tsx';
import { Panel, Sentence } from '../../controls/Panel.tsx';
import { TextButton } from '../../controls/TextButton.tsx';
import { Value } from '../../controls/Value.tsx';
import { formatCount } from '../../format.ts';
import { asThick, isOn, layersByShape, ofColour, ofLayer, upToSize } from '../../outline/choosing.ts';
import {
  act,
  chooseConnected,
  isVisible,
  moveTo,
  outline,
  separateMarks,
  showPreview,
  sortShapes,
  useOutline,
} from '../../store/outline.ts';
import { useDocument } from '../../store/project.ts';
import { PlaceSentences } from './PlaceSentences.tsx';
import { StrokeStyle } from './StrokeStyle.tsx';

export function ChosenPanel({ source }: { source: Source }) {
  const { view, chosen, hidden, isolated } = useOutline();
  const shapes = view?.shapes ?? [];
  const seen = shapes.filter(({ id }) => isVisible(id, { hidden, isolated }));
  const wanted = new Set(chosen);
  const those = shapes.filter(({ id }) => wanted.has(id));
  const points = those.reduce((sum, shape) => sum + shape.points, 0);
  return (
    <Panel
      title={chosen.length === 0 ? 'Choose' : `${formatCount(chosen.length)} chosen`}
      aside={chosen.length > 0 && <span className="figure text-quiet">{formatCount(points)} points</span>}
    >
      <ChooseMore source={source} shapes={seen} />
      {chosen.length === 0 ? (
        <p className="mt-1 text-quiet text-sm">
          Click a shape, drag a box or a line round several; Shift adds. Hold Space to move the view.
        </p>
      ) : (
        <Actions source={source} those={those} />
      )}
      {(hidden.length > 0 || isolated) && (
        <p className="mt-2 text-sm">
          {isolated ? 'Only some shapes are shown. ' : `${hidden.length} hidden. `}
          <TextButton onClick={() => outline.set({ hidden: [], isolated: null })}>Show all</TextButton>
        </p>
      )}
    </Panel>
  );
}

function ChooseMore({ source, shapes }: { source: Source; shapes: readonly OutlineShape[] }) {
  const chosen = useOutline((state) => state.chosen);
  const { layers } = useDocument();
  const wanted = new Set(chosen);
  const layerOf = layersByShape(layers, source.id);
  const on = shapes.filter(({ id }) => isOn(id, layerOf));
  const hasSome = chosen.length > 0;
  const ways: readonly (readonly [words: string, find: () => string[], needsSome: boolean])[] = [
    ['all', () => on.map(({ id }) => id), false],
    ['the others', () => on.flatMap(({ id }) => (wanted.has(id) ? [] : [id])), true],
    ['same colour', () => ofColour(on, wanted, layerOf), true],
    ['same layer', () => ofLayer(on, wanted, layerOf), true],
    ['up to this size', () => upToSize(on, wanted), true],
    ['as thick', () => asThick(on, wanted), true],
  ];
  return (
    <p className="flex flex-wrap items-baseline gap-x-3 text-sm">
      <span className="text-quiet">Choose</span>
      {ways
        .filter(([, , needsSome]) => hasSome || !needsSome)
        .map(([words, find]) => (
          <TextButton key={words} onClick={() => outline.choose(find())}>
            {words}
          </TextButton>
        ))}
      {hasSome && <TextButton onClick={() => void chooseConnected()}>connected</TextButton>}
    </p>
  );
}

const COMBINE: readonly (readonly [
  how: 'union' | 'subtract' | 'intersect' | 'exclude',
  icon: LucideIcon,
  label: string,
])[] = [
  ['union', SquaresUnite, 'Unite'],
  ['subtract', SquaresSubtract, 'Cut those in front from the one at the back'],
  ['intersect', SquaresIntersect, 'Keep what they share'],
  ['exclude', SquaresExclude, 'Keep what only one covers'],
];

function Actions({ source, those }: { source: Source; those: readonly OutlineShape[] }) {
  const { layers, unit } = useDocument();
  // From back to front: the order decides what is cut.
  const shapes = those.map(({ id }) => id);
  const strokes = those.filter(({ stroke }) => stroke);
  const size =
    those.reduce((most, { box }) => Math.max(most, box.maxX - box.minX, box.maxY - box.minY), 0) * source.scale;
  const fine = Math.max(1e-4, Number((size / 100).toPrecision(1)));
  const [by, setBy] = useState(fine);
  const [gap, setGap] = useState(fine);
  const [tolerance, setTolerance] = useState(fine / 4);
  const inUser = (length: number) => length / source.scale;
  const own = layers.filter((layer) => layer.source === source.id);
  const layerOf = layersByShape(layers, source.id);
  const inLayers = [...new Set(shapes.map((id) => layerOf.get(id)?.id ?? ''))];
  const ownLayer = inLayers.length === 1 ? inLayers[0]! : '';
  const pick = (action: EditAction) => ({
    onClick: () => void act(action),
    onPointerEnter: () => void showPreview(action),
    onPointerLeave: () => void showPreview(null),
  });
  return (
    <>
      <div className="-mx-1 my-1 flex items-center">
        {COMBINE.map(([how, icon, label]) => (
          <IconButton
            key={how}
            icon={icon}
            label={label}
            disabled={those.length < 2}
            {...(those.length < 2 ? {} : pick({ do: 'combine', how, shapes }))}
          />
        ))}
        <span className="mx-1 h-5 w-px bg-rule" />
        <IconButton icon={Ungroup} label="Separate parts that do not touch" {...pick({ do: 'separate', shapes })} />
        <IconButton icon={Blend} label="Dots apart from bodies" onClick={() => void separateMarks(shapes)} />
        <span className="mx-1 h-5 w-px bg-rule" />
        <IconButton
          icon={EyeOff}
          label="Hide"
          onClick={() => {
            outline.set({ hidden: [...useOutline.getState().hidden, ...shapes] });
            outline.choose([]);
          }}
        />
        <IconButton
          icon={Focus}
          label="Show only these"
          onClick={() => outline.set({ isolated: shapes, hidden: [] })}
        />
        <IconButton icon={Trash2} label="Remove" {...pick({ do: 'remove', shapes })} />
      </div>
      {those.length > 1 && (
        <p className="text-quiet text-sm">
          What is cut, and what the others join, is the one at the back: <b>{those[0]!.name}</b>.
        </p>
      )}
      <PlaceSentences source={source} those={those} />
      <Sentence>
        <ActionButton icon={Expand} {...pick({ do: 'grow', shapes, by: inUser(by), join: 'round' })}>
          Grow
        </ActionButton>{' '}
        or <ActionButton {...pick({ do: 'grow', shapes, by: -inUser(by), join: 'mitre' })}>shrink</ActionButton> by{' '}
        <Value label="Distance" value={by} unit={unit} step={fine / 10} onChange={setBy} />.
      </Sentence>
      {strokes.length > 0 && (
        <>
          <Sentence>
            <ActionButton icon={PenLine} {...pick({ do: 'outline', shapes: strokes.map(({ id }) => id) })}>
              Outline {strokes.length === 1 ? 'the stroke' : `${strokes.length} strokes`}
            </ActionButton>
            <StrokeStyle source={source} strokes={strokes} />.
          </Sentence>
          <Sentence>
            <ActionButton icon={Scissors} {...pick({ do: 'close', shapes, gap: inUser(gap) })}>
              Close gaps
            </ActionButton>{' '}
            up to <Value label="Widest gap" value={gap} unit={unit} step={fine / 10} onChange={setGap} />.
          </Sentence>
        </>
      )}
      <Sentence>
        <ActionButton icon={Spline} {...pick({ do: 'simplify', shapes, tolerance: inUser(tolerance) })}>
          Simplify
        </ActionButton>{' '}
        within <Value label="Tolerance" value={tolerance} unit={unit} step={fine / 20} onChange={setTolerance} />.
      </Sentence>
      {own.length > 0 && (
        <Sentence>
          {shapes.length === 1 ? 'It is' : 'They are'} in{' '}
          <Choice
            label="Layer"
            value={ownLayer}
            isMixed={ownLayer === ''}
            options={[
              ...own.map((layer) => [layer.id, layer.name] as const),
              [NEW, 'a layer of their own'],
              ...SORTINGS.map((by) => [by, SORTED[by]] as const),
            ]}
            onChange={(layer) => {
              const by = SORTINGS.find((each) => each === layer);
              if (by) void sortShapes(shapes, by);
              else moveTo(shapes, layer === NEW ? null : layer);
            }}
          />
          .
        </Sentence>
      )}
    </>
  );
}

/** In place of a layer's id. */
const NEW = 'new';
const SORTED: Record<Sorting, string> = {
  colour: 'a layer for each colour',
  group: 'a layer for each group',
  nesting: 'a layer for each nesting',
};

interface ActionButtonProps {
  icon?: LucideIcon;
  onClick: () => void;
  onPointerEnter: () => void;
  onPointerLeave: () => void;
  children: React.ReactNode;
}

function ActionButton({ icon: Icon, children, ...rest }: ActionButtonProps) {
  return (
    <button
      type="button"
      className="inline-flex items-center gap-1 rounded-edge border border-rule bg-sheet px-1.5 leading-6 hover:border-tide hover:text-tide"
      {...rest}
    >
      {Icon && <Icon size={14} aria-hidden />}
      {children}
    </button>
  );
}
