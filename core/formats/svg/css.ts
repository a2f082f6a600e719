// css.ts — the cascade for SVG properties: presentation attributes < style rules by specificity < style attribute
// (CSS Cascade 4 §6; presentation attributes count as author rules of specificity 0, SVG 2 §6.6).
import { type Atrule, type CssNode, generate, parse, walk } from 'css-tree';
import type { Warning } from '../../base/errors.ts';
import type { XmlElement } from './xml.ts';

type Declarations = ReadonlyMap<string, { readonly value: string; readonly important: boolean }>;

/** Simple selectors that must all hold for one element, and how it relates to the compound on its left. */
interface Compound {
  readonly tests: ((element: XmlElement) => boolean)[];
  combinator: 'descendant' | 'child';
}

interface Rule {
  readonly compounds: Compound[];
  readonly specificity: number;
  readonly declarations: Declarations;
}

export class Stylesheet {
  private readonly rules: Rule[] = [];

  /** Reads every `<style>` below `root`. Selectors beyond type, class, id, `*`, descendant and child are named in `warnings`. */
  constructor(root: XmlElement, warnings: Warning[]) {
    const unread = new Set<string>();
    visit(root, (element) => {
      if (element.name === 'style') this.add(element.text, unread);
    });
    for (const what of unread) {
      warnings.push({ code: 'css', message: `The style rule “${what}” was left out: its selector is not understood.` });
    }
    // A stable sort keeps the order of appearance among equals, which is what the cascade asks for.
    this.rules.sort((a, b) => a.specificity - b.specificity);
  }

  /** The declared value of each property of `element`, before inheritance. */
  declared(element: XmlElement): Map<string, string> {
    const result = new Map<string, string>(Object.entries(element.attributes));
    const important = new Map<string, string>();
    const apply = (declarations: Declarations) => {
      for (const [name, { value, important: wins }] of declarations) (wins ? important : result).set(name, value);
    };
    for (const rule of this.rules) if (matches(rule.compounds, element)) apply(rule.declarations);
    const inline = element.attributes.style;
    if (inline) apply(declarationsOf(parse(inline, { context: 'declarationList', onParseError: () => {} })));
    for (const [name, value] of important) result.set(name, value);
    return result;
  }

  private add(text: string, unread: Set<string>): void {
    const { rules } = this;
    const sheet = parse(text, { context: 'stylesheet', parseCustomProperty: false, onParseError: () => {} });
    walk(sheet, {
      visit: 'Rule',
      enter(rule) {
        if (this.atrule && !isForScreens(this.atrule)) return;
        const declarations = declarationsOf(rule.block);
        if (rule.prelude.type !== 'SelectorList') return;
        for (const selector of rule.prelude.children) {
          const compiled = compile(selector);
          if (compiled) rules.push({ ...compiled, declarations });
          else unread.add(generate(selector));
        }
      },
    });
  }
}

/** Of conditional groups only those that hold on any screen apply; animations and fonts never do. */
function isForScreens({ name, prelude }: Atrule): boolean {
  return name === 'media' && /^\s*(only\s+)?(all|screen)\s*$/.test(prelude ? generate(prelude) : 'all');
}

/** Calls `act` for `element` and everything below it, in document order. */
export function visit(element: XmlElement, act: (element: XmlElement) => void): void {
  act(element);
  for (const child of element.children) visit(child, act);
}

function declarationsOf(block: CssNode): Declarations {
  const result = new Map<string, { value: string; important: boolean }>();
  walk(block, {
    visit: 'Declaration',
    enter: ({ property, value, important }) => {
      result.set(property.toLowerCase(), { value: generate(value).trim(), important: Boolean(important) });
    },
  });
  return result;
}

function compile(selector: CssNode): Pick<Rule, 'compounds' | 'specificity'> | null {
  if (selector.type !== 'Selector') return null;
  const compounds: Compound[] = [{ tests: [], combinator: 'descendant' }];
  let specificity = 0;
  for (const part of selector.children) {
    const tests = compounds.at(-1)!.tests;
    switch (part.type) {
      case 'IdSelector':
        specificity += 1_000_000;
        tests.push((e) => e.attributes.id === part.name);
        break;
      case 'ClassSelector':
        specificity += 1000;
        tests.push((e) => (e.attributes.class ?? '').split(/\s+/).includes(part.name));
        break;
      case 'TypeSelector':
        if (part.name === '*') break;
        specificity += 1;
        tests.push((e) => e.name === part.name.replace(/^svg\|/, ''));
        break;
      case 'Combinator':
        if (part.name !== ' ' && part.name !== '>') return null;
        compounds.push({ tests: [], combinator: part.name === '>' ? 'child' : 'descendant' });
        break;
      default:
        return null;
    }
  }
  return { compounds, specificity };
}

function matches(compounds: readonly Compound[], element: XmlElement | null, last = compounds.length - 1): boolean {
  const compound = compounds[last]!;
  if (!element || !compound.tests.every((test) => test(element))) return false;
  if (last === 0) return true;
  for (let above = element.parent; above; above = above.parent) {
    if (matches(compounds, above, last - 1)) return true;
    if (compound.combinator === 'child') return false;
  }
  return false;
}
