// rule.ts — a rule on its way: tried on layers, shown as ghosts in the stack, and taken or left.
import { create } from 'zustand';
import {
  gaveOf,
  type Rule,
  type RuleBy,
  type Ruled,
  ruledValue,
  ruleFor,
  ruleKind,
  type Subject,
} from '../../core/index.ts';
import { geometry } from '../worker/client.ts';
import { dispatch, useProject } from './project.ts';

interface RuleState {
  /** Null while none is tried. */
  readonly draft: Omit<Rule, 'gave'> | null;
  /** The layers it is tried on, as it sees them, the lowest first; none before they were looked at. */
  readonly subjects: readonly Subject[];
  readonly failure: string | null;
  /** What rules would give by now, by their ids, where it is something else than they gave. */
  readonly renewed: Readonly<Record<string, Rule['gave']>>;
}

const NONE: RuleState = { draft: null, subjects: [], failure: null, renewed: {} };
export const useRule = create<RuleState>(() => NONE);
const { setState: set, getState: get } = useRule;

/** A value that all have at first is tried up to so many times as much. */
const UP_TO = 2;

/** The rule that these layers follow, or one to begin with, between the values that they have. */
function draftFor(layers: readonly string[], what: Ruled): Omit<Rule, 'gave'> | null {
  const project = useProject.getState().history?.present;
  if (!project) return null;
  const known = layers.flatMap((id) => ruleFor(project, id, what)?.rule ?? [])[0];
  if (known) return { id: known.id, what, by: known.by };
  const own = project.layers.flatMap((layer) => (layers.includes(layer.id) ? (ruledValue(layer, what) ?? []) : []));
  const [from, to] = [Math.min(...own), Math.max(...own)];
  const start = { from, to: to > from ? to : UP_TO * (from || 1) };
  return { id: crypto.randomUUID(), what, by: ruleKind('lightness').start(start) };
}

export const rule = {
  /** Tries a rule for a value of these layers. */
  try(layers: readonly string[], what: Ruled): void {
    set({ draft: draftFor(layers, what), failure: null });
  },
  /** Looks at the layers again: they have changed. */
  async look(layers: readonly string[]): Promise<void> {
    const project = useProject.getState().history?.present;
    if (!project) return;
    const outcome = await geometry((api) => api.ruleSubjects(project, layers));
    if (!get().draft) return;
    set(outcome.ok ? { subjects: outcome.value } : { failure: outcome.error.message });
  },
  by(by: RuleBy): void {
    const { draft } = get();
    if (draft) set({ draft: { ...draft, by }, failure: null });
  },
  take(): void {
    const { draft } = get();
    if (draft) dispatch({ do: 'set-rule', rule: { ...draft, gave: gaveOf(draft.by, get().subjects) } });
  },
  /** Looks whether a rule that layers follow would give them something else by now. */
  async lookAt(of: Rule): Promise<void> {
    const project = useProject.getState().history?.present;
    if (!project) return;
    const outcome = await geometry((api) => api.renewed(project, of));
    if (!outcome.ok || useProject.getState().history?.present !== project) return;
    const { [of.id]: _, ...others } = get().renewed;
    set({ renewed: outcome.value ? { ...others, [of.id]: outcome.value } : others });
  },
  renew(id: string): void {
    const gave = get().renewed[id];
    if (gave) dispatch({ do: 'renew-rule', rule: id, gave });
  },
  leave: () => set({ ...NONE, renewed: get().renewed }),
};
