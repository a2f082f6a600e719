// ContactSheet.tsx — variants side by side: any value along a row, another along a column, two of them large, one taken.
import { Dialog, DialogBackdrop, DialogPanel, DialogTitle } from '@headlessui/react';
import { X } from 'lucide-react';
import { Suspense, useState } from 'react';
import { VARIED, type Varied } from '../../../../core/index.ts';
import { Choice } from '../../../controls/Choice.tsx';
import { IconButton } from '../../../controls/IconButton.tsx';
import { later } from '../../../controls/later.ts';
import { TextButton } from '../../../controls/TextButton.tsx';
import { countOf, formatNumber } from '../../../format.ts';
import { useDocumentPart } from '../../../store/project.ts';
import { type Cell, type Line, useVary, variedBy, vary } from '../../../store/vary.ts';

const VariantStills = later(
  () => import('../../../scene/VariantStill.tsx'),
  (module) => module.VariantStills,
);

export function ContactSheet() {
  const isOpen = useVary((state) => state.isOpen);
  return (
    <Dialog open={isOpen} onClose={vary.close} className="relative z-50">
      <DialogBackdrop className="fixed inset-0 bg-black/40" />
      <div className="fixed inset-0 grid place-items-center p-4">
        <DialogPanel className="flex max-h-[calc(100dvh-2rem)] w-full max-w-6xl flex-col rounded-edge border border-rule bg-sheet">
          {isOpen && <Sheet />}
        </DialogPanel>
      </div>
    </Dialog>
  );
}

const NONE = 'nothing';
const words = VARIED.map(({ id, word }) => [id, word] as const);

function Sheet() {
  const { layers, row, column, cells, large } = useVary();
  const unit = useDocumentPart((document) => document.unit);
  const made = cells.filter(({ url, failure }) => url || failure).length;
  const shown = large.flatMap((key) => cells.find((cell) => cell.key === key) ?? []);
  return (
    <>
      <Suspense fallback={null}>
        <VariantStills />
      </Suspense>
      <header className="border-rule border-b px-5 pt-4 pb-3">
        <div className="mb-1 flex items-center justify-between gap-3">
          <DialogTitle className="font-serif text-xl">Contact sheet</DialogTitle>
          <span className="flex items-center gap-3">
            <span role="status" className="text-quiet text-sm">
              {made < cells.length ? `${made} of ${cells.length} made` : 'All made'}
            </span>
            <IconButton icon={X} label="Close; nothing is changed" onClick={vary.close} />
          </span>
        </div>
        <p className="leading-8">
          Of {countOf(layers.length, 'layer')}, the{' '}
          <Choice
            label="Varied along the row"
            value={row.varied.id}
            options={words}
            onChange={(id) => vary.setRow({ varied: variedBy(id)! })}
          />{' '}
          along the row: <Values line={row} unit={unit} name="row" onChange={(values) => vary.setRow({ values })} />,
          and down the columns{' '}
          <Choice
            label="Varied down the columns"
            value={column?.varied.id ?? NONE}
            options={[[NONE, NONE], ...words.filter(([id]) => id !== row.varied.id)]}
            onChange={(id) => vary.setColumn(id === NONE ? null : { varied: variedBy(id)! })}
          />
          {column && (
            <>
              : <Values line={column} unit={unit} name="columns" onChange={(values) => vary.setColumn({ values })} />
            </>
          )}
          .
        </p>
      </header>
      <div className="min-h-0 overflow-y-auto p-5">
        {shown.length > 0 && (
          <div className="mb-5 grid grid-cols-2 gap-4">
            {shown.map((cell) => (
              <Still key={cell.key} cell={cell} unit={unit} isLarge />
            ))}
          </div>
        )}
        <ul
          aria-label="Variants"
          className="grid gap-3"
          style={{ gridTemplateColumns: `repeat(${row.values.length}, minmax(0, 1fr))` }}
        >
          {cells.map((cell) => (
            <li key={cell.key}>
              <Still cell={cell} unit={unit} />
            </li>
          ))}
        </ul>
      </div>
    </>
  );
}

interface StillProps {
  cell: Cell;
  unit: string;
  isLarge?: boolean;
}

function Still({ cell, unit, isLarge = false }: StillProps) {
  const isPicked = useVary((state) => state.large.includes(cell.key));
  const { url, failure, variations } = cell;
  const said = variations.map(({ varied, value }) => `${varied.word} ${valueWords(varied, value, unit)}`).join(', ');
  return (
    <figure>
      <button
        type="button"
        aria-pressed={isPicked}
        aria-label={`Look at ${said} closely`}
        disabled={!url}
        className={`grid aspect-[4/3] w-full place-items-center overflow-hidden rounded-edge border bg-view ${isPicked && !isLarge ? 'border-tide outline outline-1 outline-tide' : 'border-rule'}`}
        onClick={() => vary.enlarge(cell.key)}
      >
        {url ? (
          <img src={url} alt={said} className="size-full object-contain" />
        ) : (
          <span className={`p-3 text-sm ${failure ? 'text-ember' : 'text-ink'}`}>{failure ?? 'being made …'}</span>
        )}
      </button>
      <figcaption className="mt-1 flex items-baseline justify-between gap-2 text-sm">
        <span>
          {variations.map(({ varied, value }, i) => (
            <span key={varied.id}>
              {i > 0 && ' · '}
              {varied.word} <span className="figure text-tide">{valueWords(varied, value, unit)}</span>
            </span>
          ))}
        </span>
        {url && <TextButton onClick={() => vary.take(cell)}>Take it</TextButton>}
      </figcaption>
    </figure>
  );
}

function valueWords(varied: Varied, value: number | string, unit: string): string {
  if (varied.is === 'choice') return varied.choices.find(([id]) => id === value)?.[1] ?? String(value);
  const v = Number(value);
  if (varied.is === 'share') return `${formatNumber(100 * v)} %`;
  if (varied.is === 'angle') return `${formatNumber(v)}°`;
  return varied.is === 'length' ? `${formatNumber(v)} ${unit}` : formatNumber(v);
}

const MOST_VALUES = 6;

interface ValuesProps {
  line: Line;
  unit: string;
  name: string;
  onChange: (values: (number | string)[]) => void;
}

/** What a value is in turn: typed one after another, or ticked. */
function Values({ line: { varied, values }, unit, name, onChange }: ValuesProps) {
  const [draft, setDraft] = useState<string | null>(null);
  if (varied.is === 'choice') {
    return (
      <span className="inline-flex flex-wrap gap-x-3">
        {varied.choices.map(([id, text]) => (
          <label key={id} className="inline-flex items-center gap-1">
            <input
              type="checkbox"
              className="accent-tide"
              checked={values.includes(id)}
              disabled={values.includes(id) ? values.length === 1 : values.length >= MOST_VALUES}
              onChange={() => onChange(values.includes(id) ? values.filter((other) => other !== id) : [...values, id])}
            />
            {text}
          </label>
        ))}
      </span>
    );
  }
  const factor = varied.is === 'share' ? 100 : 1;
  const take = () => {
    const typed = (draft ?? '')
      .split(/[\s;]+/)
      .filter(Boolean)
      .map((word) => Number(word.replace(',', '.')));
    setDraft(null);
    if (typed.length === 0 || typed.some((v) => !Number.isFinite(v))) return;
    onChange([...new Set(typed)].slice(0, MOST_VALUES).map((v) => v / factor));
  };
  const suffix = { length: unit, angle: '°', share: '%', count: '', number: '' }[varied.is];
  return (
    <>
      <input
        aria-label={`Values along the ${name}`}
        className="figure w-36 rounded-edge border-tide border-b bg-wash px-1 text-tide focus:bg-sheet"
        value={draft ?? values.map((v) => formatNumber(Number(v) * factor)).join('  ')}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={() => draft !== null && take()}
        onKeyDown={(event) => {
          if (event.key === 'Enter') event.currentTarget.blur();
        }}
      />{' '}
      {suffix}
    </>
  );
}
