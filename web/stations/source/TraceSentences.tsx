// TraceSentences.tsx — how a picture is traced, as sentences whose values are the controls.
import { Pipette, X } from 'lucide-react';
import { useNavigate } from 'react-router';
import { type Ink, type Layering, type PictureSource, type TraceSettings, UNDERLAY } from '../../../core/index.ts';
import { Choice } from '../../controls/Choice.tsx';
import { IconButton } from '../../controls/IconButton.tsx';
import { Sentence } from '../../controls/Panel.tsx';
import { TextButton } from '../../controls/TextButton.tsx';
import { Value } from '../../controls/Value.tsx';
import { drawOn } from '../../store/drawing.ts';
import { changePicture } from '../../store/picture.ts';
import { sourceView, useSourceView } from '../../store/source-view.ts';

const MODES: readonly (readonly [TraceSettings['mode'], string])[] = [
  ['ink', 'ink'],
  ['tones', 'tones'],
  ['colours', 'colours'],
  ['centreline', 'centrelines'],
  [UNDERLAY, 'nothing, only an underlay'],
];

/** Where smooth begins when it is taken over by hand, px. */
const START_SMOOTH = 0.2;
const START_COUNT = 4;

export function TraceSentences({ source }: { source: PictureSource }) {
  const { trace } = source;
  const change = (part: Partial<TraceSettings>, gesture: string | null = null) =>
    changePicture(source.id, { trace: { ...trace, ...part } }, gesture);
  const isInk = trace.mode === 'ink' || trace.mode === 'centreline';
  const mode = (
    <>
      The picture is traced as{' '}
      <Choice<TraceSettings['mode']>
        label="Traced as"
        value={trace.mode}
        options={MODES}
        onChange={(mode) => change({ mode })}
      />
    </>
  );
  if (trace.mode === UNDERLAY) {
    return (
      <Sentence>
        {mode}. It lies still beneath what you <DrawOver source={source.id} />.
      </Sentence>
    );
  }
  return (
    <>
      <Sentence>
        {mode}
        {isInk ? (
          <>
            ; ink is what is{' '}
            <Choice<Ink>
              label="Ink is what is"
              value={trace.ink}
              options={[
                ['dark', 'dark'],
                ['light', 'light'],
                ['opaque', 'opaque'],
              ]}
              onChange={(ink) => change({ ink })}
            />
            .
          </>
        ) : (
          <FlatSentence source={source} change={change} />
        )}
      </Sentence>
      {!isInk && <Picked source={source} change={change} />}
      <Sentence>
        Pieces and holes under{' '}
        <Value
          label="Detail"
          value={trace.detail}
          unit="px²"
          step={1}
          onChange={(detail, gesture) => change({ detail }, gesture)}
        />{' '}
        are left out. Turns over{' '}
        <Value
          label="Corners"
          value={trace.corner}
          unit="°"
          min={5}
          max={120}
          step={1}
          onChange={(corner, gesture) => change({ corner }, gesture)}
        />{' '}
        stay corners. Curves may stray{' '}
        {trace.smooth === null ? (
          <Choice<'auto' | 'own'>
            label="Smooth"
            value="auto"
            options={[
              ['auto', 'as the noise asks'],
              ['own', 'by a figure'],
            ]}
            onChange={(way) => way === 'own' && change({ smooth: START_SMOOTH })}
          />
        ) : (
          <>
            <Value
              label="Smooth"
              value={trace.smooth}
              unit="px"
              min={0.01}
              max={50}
              step={0.05}
              onChange={(smooth, gesture) => change({ smooth }, gesture)}
            />
            <IconButton
              icon={X}
              label="Let the noise of the picture decide how far curves may stray"
              onClick={() => change({ smooth: null })}
            />
          </>
        )}
        .
      </Sentence>
    </>
  );
}

/** The way to the pen, with the picture beneath it. */
function DrawOver({ source }: { source: string }) {
  const navigate = useNavigate();
  const draw = () => {
    drawOn(source);
    navigate('../outline', { relative: 'path' });
  };
  return <TextButton onClick={draw}>draw over it</TextButton>;
}

type Change = (part: Partial<TraceSettings>, gesture?: string | null) => void;

function FlatSentence({ source: { trace }, change }: { source: PictureSource; change: Change }) {
  const { count, picked, layering, mode } = trace;
  return (
    <>
      ,{' '}
      {picked.length > 0 ? (
        `the ${picked.length} picked below`
      ) : count === null ? (
        <Choice<'auto' | 'own'>
          label="How many"
          value="auto"
          options={[
            ['auto', 'as many as stand apart'],
            ['own', 'a given number'],
          ]}
          onChange={(way) => way === 'own' && change({ count: START_COUNT })}
        />
      ) : (
        <>
          <Value
            label="Count"
            value={count}
            min={2}
            max={32}
            step={1}
            onChange={(v, gesture) => change({ count: Math.round(v) }, gesture)}
          />{' '}
          of them
          <IconButton icon={X} label={`Take as many ${mode} as stand apart`} onClick={() => change({ count: null })} />
        </>
      )}
      ,{' '}
      <Choice<Layering>
        label="Layering"
        value={layering}
        options={[
          ['stacked', 'stacked like cut paper'],
          ['abutting', 'abutting edge to edge'],
        ]}
        onChange={(next) => change({ layering: next })}
      />
      .
    </>
  );
}

function Picked({ source: { trace }, change }: { source: PictureSource; change: Change }) {
  const tool = useSourceView((state) => state.tool);
  return (
    <div className="flex flex-wrap items-center gap-1">
      {trace.picked.map((hex) => (
        <button
          key={hex}
          type="button"
          aria-label={`Give up the picked colour ${hex}`}
          title={`Give up ${hex}`}
          className="size-6 rounded-edge border border-rule"
          style={{ background: hex }}
          onClick={() => change({ picked: trace.picked.filter((other) => other !== hex) })}
        />
      ))}
      <IconButton
        icon={Pipette}
        label="Pick colours in the picture"
        pressed={tool?.kind === 'colour'}
        onClick={() => sourceView.set({ tool: tool?.kind === 'colour' ? null : { kind: 'colour' } })}
      />
      <span className="text-quiet text-sm">
        {trace.picked.length === 0 ? 'or pick colours by hand' : 'click one to give it up'}
      </span>
    </div>
  );
}
