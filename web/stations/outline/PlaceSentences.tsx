// PlaceSentences.tsx — where the chosen shapes stand and how large they are, as numbers; turned, mirrored, copied, and from back to front.
import {
  ArrowDown,
  ArrowUp,
  BringToFront,
  Copy,
  FlipHorizontal2,
  FlipVertical2,
  Link2,
  type LucideIcon,
  SendToBack,
  Unlink2,
} from 'lucide-react';
import { useState } from 'react';
import type { Order, OutlineShape, Source } from '../../../core/index.ts';
import { IconButton } from '../../controls/IconButton.tsx';
import { Sentence } from '../../controls/Panel.tsx';
import { Value } from '../../controls/Value.tsx';
import { areaOf } from '../../outline/choosing.ts';
import { middleOf, movedBy, scaledBy, turnedBy } from '../../outline/placing.ts';
import { copyBeside, place, reorder } from '../../store/outline.ts';
import { useDocumentPart } from '../../store/project.ts';

const ORDER: readonly (readonly [to: Order, icon: LucideIcon, label: string])[] = [
  ['front', BringToFront, 'To the front'],
  ['forward', ArrowUp, 'Forward'],
  ['backward', ArrowDown, 'Backward'],
  ['back', SendToBack, 'To the back'],
];

const figure = (v: number) => Number(v.toPrecision(8));

export function PlaceSentences({ source, those }: { source: Source; those: readonly OutlineShape[] }) {
  const unit = useDocumentPart((document) => document.unit);
  const [keepsRatio, setKeepsRatio] = useState(true);
  const area = areaOf(those);
  if (!area) return null;
  const { scale, origin } = source;
  const middle = middleOf(area);
  const [width, height] = [(area.maxX - area.minX) * scale, (area.maxY - area.minY) * scale];
  const step = Math.max(1e-6, Number((Math.max(width, height) / 100).toPrecision(1)));
  const size = (axis: 0 | 1) => (wanted: number) => {
    const by = wanted / [width, height][axis]!;
    void place(scaledBy(keepsRatio || axis === 0 ? by : 1, keepsRatio || axis === 1 ? by : 1, middle));
  };
  return (
    <>
      <Sentence>
        {those.length === 1 ? 'It is' : 'Together they are'}{' '}
        <Value label="Width" value={figure(width)} unit={unit} step={step} min={step / 1000} onChange={size(0)} /> wide
        <IconButton
          icon={keepsRatio ? Link2 : Unlink2}
          label="Width and height change together"
          pressed={keepsRatio}
          className="mx-0.5 size-7 align-middle"
          onClick={() => setKeepsRatio(!keepsRatio)}
        />
        and <Value label="Height" value={figure(height)} unit={unit} step={step} min={step / 1000} onChange={size(1)} />{' '}
        high, the middle{' '}
        <Value
          label="Middle across"
          value={figure((middle.x - origin[0]) * scale)}
          unit={unit}
          step={step}
          min={-1e6}
          onChange={(v) => void place(movedBy(v / scale + origin[0] - middle.x, 0))}
        />{' '}
        across and{' '}
        <Value
          label="Middle up"
          value={figure((origin[1] - middle.y) * scale)}
          unit={unit}
          step={step}
          min={-1e6}
          onChange={(v) => void place(movedBy(0, origin[1] - v / scale - middle.y))}
        />{' '}
        up. Turn by{' '}
        <Value
          label="Turn by"
          value={0}
          unit="°"
          step={5}
          min={-360}
          max={360}
          onChange={(v) => void place(turnedBy(-v, middle))}
        />
        .
      </Sentence>
      <div className="-mx-1 my-1 flex items-center">
        <IconButton
          icon={FlipHorizontal2}
          label="Mirror left and right"
          onClick={() => void place(scaledBy(-1, 1, middle))}
        />
        <IconButton
          icon={FlipVertical2}
          label="Mirror top and bottom"
          onClick={() => void place(scaledBy(1, -1, middle))}
        />
        <IconButton icon={Copy} label="Copy beside" keys="Ctrl D" onClick={() => void copyBeside()} />
        <span className="mx-1 h-5 w-px bg-rule" />
        {ORDER.map(([to, icon, label]) => (
          <IconButton key={to} icon={icon} label={label} onClick={() => void reorder(to)} />
        ))}
      </div>
    </>
  );
}
