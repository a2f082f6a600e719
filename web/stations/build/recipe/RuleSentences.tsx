// RuleSentences.tsx — one value of many layers by a rule: tried with ghosts in the stack, taken, and where single layers differ.
import { useEffect, useState } from 'react';
import {
  differsFromRule,
  type Layer,
  RULE_KINDS,
  RULED,
  type Rule,
  type RuleBy,
  type Ruled,
  type RuleKindName,
  ruleFor,
  ruleKind,
} from '../../../../core/index.ts';
import { Choice } from '../../../controls/Choice.tsx';
import { Folded } from '../../../controls/Folded.tsx';
import { Note, Sentence } from '../../../controls/Panel.tsx';
import { TextButton } from '../../../controls/TextButton.tsx';
import { Value } from '../../../controls/Value.tsx';
import { countOf, formatNumber } from '../../../format.ts';
import { useBuild } from '../../../store/build.ts';
import { dispatch, useDocument } from '../../../store/project.ts';
import { rule, useRule } from '../../../store/rule.ts';
import { type AtLeastOne, niceStep } from './several.tsx';

const KINDS = RULE_KINDS.map(({ kind, word }): [RuleKindName, string] => [kind, word]);

/** @param layers more than one, or one that follows a rule */
export function RuleSentences({ layers }: { layers: AtLeastOne<Layer> }) {
  const project = useDocument();
  const rules = RULED.flatMap((what) => {
    const found = layers.flatMap(({ id }) => ruleFor(project, id, what)?.rule ?? [])[0];
    return found ? [found] : [];
  });
  if (layers.length < 2 && rules.length === 0) return null;
  return (
    <>
      {rules.map((each) => (
        <Followed key={each.id} rule={each} layers={layers} />
      ))}
      {layers.length > 1 && (
        <Folded title="By a rule">
          <Draft layers={layers} />
        </Folded>
      )}
    </>
  );
}

/** A rule that layers follow, and those that differ from it. */
function Followed({ rule: known, layers }: { rule: Rule; layers: AtLeastOne<Layer> }) {
  const { id, what, by } = known;
  const project = useDocument();
  const proven = useBuild((state) => state.proven);
  const renewed = useRule((state) => state.renewed[id]);
  // When nothing moves any more: layers may have other colours, outlines or neighbours by now.
  useEffect(() => {
    if (proven) void rule.lookAt(known);
  }, [proven, known]);
  const own = layers.filter((layer) => ruleFor(project, layer.id, what)?.rule.id === id);
  const different = own.flatMap((layer) => {
    const value = differsFromRule(project, layer, what);
    return value === null ? [] : [{ layer: layer.id, value }];
  });
  return (
    <Note>
      {own.length === layers.length ? 'The' : `Of ${own.length} of them the`} {what} goes by {ruleKind(by.kind).word}
      {different.length > 0 && (
        <>
          ; {different.length === 1 ? 'one differs' : `${different.length} differ`} from the rule
          {different.length === 1 && `, which gave ${formatNumber(different[0]!.value)} ${project.unit}`}
        </>
      )}
      .{' '}
      {different.length > 0 && (
        <>
          <TextButton
            onClick={() => dispatch({ do: 'follow-rule', rule: id, layers: different.map(({ layer }) => layer) })}
          >
            Back to the rule
          </TextButton>{' '}
        </>
      )}
      {renewed && (
        <>
          Its layers have changed, and it would give {changesOf(known, renewed)} of them another {what} by now:{' '}
          <TextButton onClick={() => rule.renew(id)}>Go by it again</TextButton>.{' '}
        </>
      )}
      <TextButton onClick={() => dispatch({ do: 'remove-rule', rule: id })}>Give the rule up</TextButton>
    </Note>
  );
}

/** How many layers a rule would give something else than it gave. */
function changesOf({ gave }: Rule, renewed: Rule['gave']): number {
  const before = new Map(gave.map(({ layer, value }) => [layer, value]));
  return renewed.filter(({ layer, value }) => before.get(layer) !== value).length;
}

/** A rule on its way. While it is open the stack shows what it would give. */
function Draft({ layers }: { layers: AtLeastOne<Layer> }) {
  const { unit, layers: all } = useDocument();
  const { draft, subjects, failure } = useRule();
  const key = layers.map(({ id }) => id).join(' ');
  useEffect(() => {
    rule.try(key.split(' '), 'depth');
    return rule.leave;
  }, [key]);
  // The same list as long as no layer changes.
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is looked at is in the document
  useEffect(() => {
    void rule.look(key.split(' '));
  }, [key, all]);
  if (!draft) return null;
  const { by, what } = draft;
  return (
    <>
      <Sentence>
        Their{' '}
        <Choice<Ruled>
          label="Ruled value"
          value={what}
          options={RULED.map((each) => [each, each] as const)}
          onChange={(next) => rule.try(key.split(' '), next)}
        />{' '}
        goes by{' '}
        <Choice<RuleKindName>
          label="Rule"
          value={by.kind}
          options={KINDS}
          onChange={(kind) => rule.by(ruleKind(kind).start(endsOf(by)))}
        />
        <Settings by={by} unit={unit} />
      </Sentence>
      {failure && <Note tone="ember">{failure}</Note>}
      <p className="mb-2 flex flex-wrap items-center gap-x-4 text-sm">
        <button
          type="button"
          disabled={subjects.length === 0}
          className="rounded-edge bg-tide px-3 py-1.5 text-sheet disabled:opacity-50"
          onClick={rule.take}
        >
          Give {countOf(subjects.length, 'layer')} their {what}
        </button>
        {what !== 'reach' && <span className="text-quiet">Dashed bars in the stack show it.</span>}
      </p>
    </>
  );
}

/** Between which values a rule goes: what another kind begins with. */
function endsOf(by: RuleBy): { from: number; to: number } {
  if (by.kind === 'list') return { from: Math.min(...by.values), to: Math.max(...by.values) };
  return { from: by.from, to: 'to' in by ? by.to : by.from + by.step };
}

function Settings({ by, unit }: { by: RuleBy; unit: string }) {
  const length = (label: string, value: number, onChange: (v: number) => void) => (
    <Value label={label} value={value} unit={unit} min={-1e6} step={niceStep(value)} onChange={onChange} />
  );
  if (by.kind === 'list') {
    return (
      <>
        : <ListField values={by.values} onChange={(values) => rule.by({ ...by, values })} /> {unit}, from the lowest up
        and round again.
      </>
    );
  }
  const from = length('Rule from', by.from, (v) => rule.by({ ...by, from: v }));
  if (by.kind === 'order' || by.kind === 'containment') {
    return (
      <>
        : {from} at first, and {length('Step', by.step, (step) => rule.by({ ...by, step }))} more for each that it{' '}
        {by.kind === 'order' ? 'stands on' : 'lies within'}.
      </>
    );
  }
  const to = length('Rule to', by.to, (v) => rule.by({ ...by, to: v }));
  return (
    <>
      , {ENDS[by.kind][0]} {from}, {ENDS[by.kind][1]} {to}
      {by.kind === 'distance' && (
        <>
          ; the point lies at {length('Point across', by.at[0], (x) => rule.by({ ...by, at: [x, by.at[1]] }))} and{' '}
          {length('Point up', by.at[1], (y) => rule.by({ ...by, at: [by.at[0], y] }))} from the middle of the sheet
        </>
      )}
      {by.kind === 'along' && (
        <>
          , towards{' '}
          <Value
            label="Direction of the line"
            value={by.towardsDeg}
            unit="°"
            min={-360}
            max={360}
            step={5}
            onChange={(towardsDeg) => rule.by({ ...by, towardsDeg })}
          />
        </>
      )}
      {by.kind === 'spread' && (
        <>
          , draw{' '}
          <Value
            label="Number of the draw"
            value={by.seed}
            max={1e9}
            step={1}
            onChange={(seed) => rule.by({ ...by, seed: Math.round(seed) })}
          />
        </>
      )}
      .
    </>
  );
}

/** Which layers have the first value, and which the last. */
const ENDS = {
  lightness: ['the darkest', 'the lightest'],
  area: ['the smallest', 'the largest'],
  distance: ['the nearest', 'the farthest'],
  along: ['the first', 'the last'],
  spread: ['between', 'and'],
} as const;

/** Numbers typed one after another. What cannot be read stays, and is said. */
function ListField({ values, onChange }: { values: readonly number[]; onChange: (values: number[]) => void }) {
  const [draft, setDraft] = useState<string | null>(null);
  const [isRefused, setRefused] = useState(false);
  const take = () => {
    if (draft === null) return;
    const numbers = draft
      .split(/[\s;]+|,(?!\d)/)
      .filter((word) => word !== '')
      .map((word) => Number(word.replace(',', '.')));
    const isGood = numbers.length > 0 && numbers.every(Number.isFinite);
    setRefused(!isGood);
    if (!isGood) return;
    onChange(numbers);
    setDraft(null);
  };
  return (
    <>
      <input
        aria-label="Values of the rule"
        aria-invalid={isRefused}
        className="figure w-32 rounded-edge border-tide border-b bg-wash px-1 text-tide focus:bg-sheet"
        value={draft ?? values.map((v) => formatNumber(v)).join('  ')}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={take}
        onKeyDown={(event) => {
          if (event.key === 'Enter') event.currentTarget.blur();
          if (event.key === 'Escape') {
            setDraft(null);
            setRefused(false);
          }
        }}
      />
      {isRefused && (
        <span role="alert" className="text-ember text-sm">
          {' '}
          Type numbers with blanks between them.
        </span>
      )}
    </>
  );
}
