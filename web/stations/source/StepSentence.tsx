// StepSentence.tsx — one step as a sentence whose values are the controls.
import { useState } from 'react';
import type { PictureSource, Step, StepAction } from '../../../core/index.ts';
import { Choice } from '../../controls/Choice.tsx';
import { Sentence } from '../../controls/Panel.tsx';
import { TextButton } from '../../controls/TextButton.tsx';
import { Value } from '../../controls/Value.tsx';
import { formatNumber } from '../../format.ts';
import { usePictureView } from '../../store/picture-views.ts';
import { geometry } from '../../worker/client.ts';
import { Histogram } from './Histogram.tsx';

interface StepSentenceProps {
  source: PictureSource;
  step: Step;
  onChange: (action: StepAction, gesture?: string | null) => void;
}

type Of<K extends StepAction['do']> = Extract<StepAction, { do: K }>;
interface SentenceProps<K extends StepAction['do']> extends StepSentenceProps {
  action: Of<K>;
}

export function StepSentence(props: StepSentenceProps) {
  const { action } = props.step;
  switch (action.do) {
    case 'crop':
      return <CropSentence {...props} action={action} />;
    case 'levels':
      return <LevelsSentence {...props} action={action} />;
    case 'threshold':
      return <ThresholdSentence {...props} action={action} />;
    case 'ground':
      return <GroundSentence {...props} action={action} />;
    default:
      return <Sentence>{shortSentence(action, props.onChange)}</Sentence>;
  }
}

function shortSentence(action: StepAction, onChange: StepSentenceProps['onChange']) {
  switch (action.do) {
    case 'straighten':
      return (
        <>
          Turn it by{' '}
          <Value
            label="Turn"
            value={action.by}
            unit="°"
            min={-45}
            max={45}
            step={0.1}
            onChange={(by, gesture) => onChange({ ...action, by }, gesture)}
          />{' '}
          clockwise.
        </>
      );
    case 'rotate':
      return (
        <>
          Turn it by{' '}
          <Choice<'90' | '180' | '270'>
            label="Quarters"
            value={`${action.by}`}
            options={[
              ['90', 'a quarter clockwise'],
              ['180', 'a half'],
              ['270', 'a quarter back'],
            ]}
            onChange={(by) => onChange({ do: 'rotate', by: Number(by) as 90 | 180 | 270 })}
          />
          .
        </>
      );
    case 'flip':
      return (
        <>
          Flip it{' '}
          <Choice<Of<'flip'>['way']>
            label="Flip"
            value={action.way}
            options={[
              ['across', 'left to right'],
              ['upside-down', 'top to bottom'],
            ]}
            onChange={(way) => onChange({ do: 'flip', way })}
          />
          .
        </>
      );
    case 'resample':
      return (
        <>
          Make{' '}
          <Value
            label="Factor"
            value={action.factor}
            unit="×"
            min={0.02}
            max={16}
            step={0.5}
            onChange={(factor, gesture) => onChange({ do: 'resample', factor }, gesture)}
          />{' '}
          as many pixels along each side, by a Lanczos filter. 120 to 600 dpi is ×5.
        </>
      );
    case 'light':
      return (
        <>
          Paper becomes as light everywhere as where it is lit best. The light{' '}
          <Choice<Of<'light'>['by']>
            label="Light"
            value={action.by}
            options={[
              ['surface', 'falls off evenly'],
              ['near', 'has shadows in it'],
            ]}
            onChange={(by) => onChange({ ...action, by })}
          />
          {action.by === 'near' && (
            <>
              ; ink is thinner than{' '}
              <Value
                label="Window"
                value={action.window}
                unit="px"
                min={8}
                max={4000}
                step={1}
                onChange={(window, gesture) => onChange({ ...action, window }, gesture)}
              />
            </>
          )}
          .
        </>
      );
    case 'part':
      return 'Only what lies for the most part inside the region in the view is kept.';
    case 'specks':
      return (
        <>
          Paint over ink up to{' '}
          <Value
            label="Specks"
            value={action.ink}
            unit="px²"
            step={1}
            onChange={(ink, gesture) => onChange({ ...action, ink }, gesture)}
          />{' '}
          and holes up to{' '}
          <Value
            label="Pinholes"
            value={action.holes}
            unit="px²"
            step={1}
            onChange={(holes, gesture) => onChange({ ...action, holes }, gesture)}
          />
          .
        </>
      );
    case 'soften':
      return (
        <>
          Blur it by{' '}
          <Value
            label="Blur"
            value={action.radius}
            unit="px"
            min={0.1}
            max={20}
            step={0.1}
            onChange={(radius, gesture) => onChange({ do: 'soften', radius }, gesture)}
          />
          , so that jagged edges get greys.
        </>
      );
    default:
      return 'Dark becomes light and light becomes dark.';
  }
}

/** Shapes of a crop, width over height. */
const RATIOS: readonly (readonly [ratio: string, words: string])[] = [
  ['free', 'free'],
  ['1', 'square'],
  [`${4 / 3}`, '4 : 3'],
  [`${3 / 2}`, '3 : 2'],
  [`${16 / 9}`, '16 : 9'],
  [`${3 / 4}`, '3 : 4'],
  [`${2 / 3}`, '2 : 3'],
];

/** A shape of a frame that is typed: `2 : 1`, `16:9`, `1.5`. @returns null for what is none */
function ratioIn(text: string): number | null {
  const parts = text.split(/[:∶/×x]/).map((part) => Number(part.trim().replace(',', '.')));
  const [wide, high = 1] = parts;
  const ratio = wide! / high;
  return parts.length <= 2 && ratio > 0.01 && ratio < 100 ? ratio : null;
}

function CropSentence({ source, step, action, onChange }: SentenceProps<'crop'>) {
  const [typed, setTyped] = useState<string | null>(null);
  const { area } = action;
  /** A frame about a place, held inside the picture; all in shares of it. */
  const about = (x: number, y: number, width: number, height: number) => {
    const held = (middle: number, size: number) => Math.min(1 - size, Math.max(0, middle - size / 2));
    return { x: held(x, width), y: held(y, height), width, height };
  };
  const take = (ratio: number) => {
    // The frame keeps its middle and fits into what it covered.
    const [wide, high] = [area.width * source.width, area.height * source.height];
    const [width, height] = wide / high > ratio ? [high * ratio, high] : [wide, wide / ratio];
    const middle = [area.x + area.width / 2, area.y + area.height / 2] as const;
    onChange({ ...action, ratio, area: about(...middle, width / source.width, height / source.height) });
  };
  const choose = (words: string) => {
    if (words === 'typed') setTyped(action.ratio === null ? '2 : 1' : `${Number(action.ratio.toPrecision(4))} : 1`);
    else if (words === 'free') onChange({ ...action, ratio: null });
    else take(Number(words));
  };
  const centre = async () => {
    const before = source.prepare.findIndex(({ id }) => id === step.id);
    const outcome = await geometry((api) => api.drawnArea(source, before));
    if (!outcome.ok || !outcome.value) return;
    const { x, y, width, height } = outcome.value;
    onChange({ ...action, area: about(x + width / 2, y + height / 2, area.width, area.height) });
  };
  const isListed = action.ratio === null || RATIOS.some(([value]) => value === `${action.ratio}`);
  const wanted = typed === null ? null : ratioIn(typed);
  const percent = (v: number) => `${Math.round(100 * v)} %`;
  return (
    <Sentence>
      Keep <span className="figure">{percent(action.area.width)}</span> of the width and{' '}
      <span className="figure">{percent(action.area.height)}</span> of the height, as framed in the view. The frame is{' '}
      <Choice
        label="Shape of the frame"
        value={action.ratio === null ? 'free' : `${action.ratio}`}
        options={[
          ...RATIOS,
          ...(isListed ? [] : [[`${action.ratio}`, `${formatNumber(action.ratio!)} : 1`] as const]),
          ['typed', 'as I type it…'],
        ]}
        onChange={choose}
      />
      {typed !== null && (
        <input
          // biome-ignore lint/a11y/noAutofocus: it was asked for a moment ago
          autoFocus
          aria-label="Width to height"
          aria-invalid={wanted === null}
          className="figure ml-2 w-20 rounded-edge border-tide border-b bg-wash px-1 text-tide"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Escape') setTyped(null);
            if (event.key !== 'Enter' || wanted === null) return;
            take(wanted);
            setTyped(null);
          }}
          onBlur={() => {
            if (wanted !== null) take(wanted);
            setTyped(null);
          }}
        />
      )}
      . <TextButton onClick={() => void centre()}>Centre it on what is drawn</TextButton>
    </Sentence>
  );
}

function LevelsSentence({ source, step, action, onChange }: SentenceProps<'levels'>) {
  const view = usePictureView(
    source,
    source.prepare.findIndex(({ id }) => id === step.id),
  );
  const percent = (key: 'black' | 'white', label: string) => (
    <Value
      label={label}
      value={Math.round(100 * action[key])}
      unit="%"
      max={100}
      step={1}
      onChange={(v, gesture) => onChange({ ...action, [key]: v / 100 }, gesture)}
    />
  );
  return (
    <>
      {view && <Histogram histogram={view.histogram} marks={[action.black, action.white]} />}
      <Sentence>
        {percent('black', 'Black')} becomes black and {percent('white', 'White')} white, with a gamma of{' '}
        <Value
          label="Gamma"
          value={action.gamma}
          min={0.1}
          max={10}
          step={0.05}
          onChange={(gamma, gesture) => onChange({ ...action, gamma }, gesture)}
        />
        , in{' '}
        <Choice<Of<'levels'>['space']>
          label="Colour space"
          value={action.space}
          options={[
            ['encoded', 'values as they are stored'],
            ['linear', 'linear light'],
          ]}
          onChange={(space) => onChange({ ...action, space })}
        />
        .
      </Sentence>
    </>
  );
}

function ThresholdSentence({ source, step, action, onChange }: SentenceProps<'threshold'>) {
  const view = usePictureView(
    source,
    source.prepare.findIndex(({ id }) => id === step.id),
  );
  const level = action.level ?? view?.automatic ?? 0.5;
  return (
    <>
      {view && <Histogram histogram={view.histogram} marks={[level]} />}
      <input
        type="range"
        aria-label="Threshold"
        className="w-full accent-tide"
        min={0}
        max={1}
        step={0.005}
        value={level}
        onChange={(event) => onChange({ do: 'threshold', level: Number(event.target.value) }, `threshold ${step.id}`)}
      />
      <Sentence>
        Ink is darker than{' '}
        <Value
          label="Level"
          value={Math.round(1000 * level) / 10}
          unit="%"
          max={100}
          step={0.5}
          onChange={(v, gesture) => onChange({ do: 'threshold', level: v / 100 }, gesture)}
        />
        {action.level === null ? (
          ', the level that parts the greys best.'
        ) : (
          <>
            .{' '}
            <button
              type="button"
              className="text-tide underline"
              onClick={() => onChange({ do: 'threshold', level: null })}
            >
              Find it
            </button>
          </>
        )}
      </Sentence>
      <p className="text-quiet text-sm">
        The greys beside the edges are kept: they say where within a pixel an edge runs.
      </p>
    </>
  );
}

function GroundSentence({ action, onChange }: SentenceProps<'ground'>) {
  return (
    <Sentence>
      Take the ground away by{' '}
      <Choice<Of<'ground'>['by']>
        label="By"
        value={action.by}
        options={[
          ['colour', 'its colour, from the border inward'],
          ['alpha', 'transparency'],
        ]}
        onChange={(by) => onChange({ do: 'ground', by, reach: by === 'alpha' ? 0.5 : 0.08 })}
      />
      {action.by === 'colour' ? ', as far as colours lie within ' : ', leaving what is over '}
      <Value
        label="Reach"
        value={Math.round(100 * action.reach)}
        unit="%"
        max={100}
        step={1}
        onChange={(v, gesture) => onChange({ ...action, reach: v / 100 }, gesture)}
      />
      {action.by === 'colour' ? ' of it.' : ' opaque.'}
    </Sentence>
  );
}
