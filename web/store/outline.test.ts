// Edits wait for each other, and what comes of one never overwrites what happened meanwhile. The worker is a stand-in that answers
// when it is told to.
import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { type Edit, type Project, readSvg, startHistory } from '../../core/index.ts';
import { projectOf } from '../../core/testing/projects.ts';

type Answer = { ok: true; value: unknown } | { ok: false; error: { message: string } };
interface Call {
  readonly project: Project;
  readonly edits: readonly Edit[];
  readonly answer: (answer: Answer) => void;
}

/** Edits that were asked for and are not answered yet. */
let calls: Call[];

vi.mock('../worker/client.ts', () => ({
  stopGeometry: () => {},
  geometry: (call: (api: object) => Promise<Answer>) =>
    call({
      edit: (project: Project, _source: string, edits: readonly Edit[]) =>
        new Promise<Answer>((answer) => calls.push({ project, edits, answer })),
    }),
}));

const { act, useOutline } = await import('./outline.ts');
const store = await import('./project.ts');

const { project } = projectOf(readSvg('<svg viewBox="0 0 9 9"><rect id="a" width="4" height="4"/></svg>'));
const present = () => store.useProject.getState().history!.present;
const editsOf = () => present().sources[0]!.edits.map(({ action }) => action.do);
/** Until what has been asked for has been asked for. */
const settled = () => new Promise((wait) => setTimeout(wait, 5));

/** What the worker answers to an edit that went well: the source as it was asked for. */
function done({ project: of, edits, answer }: Call, said = 'done'): void {
  const source = { ...of.sources[0]!, edits };
  answer({
    ok: true,
    value: { source, layers: of.layers, gone: [], outcomes: edits.map(() => ({ said, isDone: true })) },
  });
}

beforeEach(() => {
  calls = [];
  vi.stubGlobal('fetch', async () => Response.json({ revision: 2 }));
  const reply = { id: 'p', revision: 1, isDemo: false, document: project };
  store.openProject({ reply, unsaved: null, history: startHistory(project) });
});
afterEach(() => {
  store.closeProject();
  vi.unstubAllGlobals();
});

describe('edits', () => {
  it('wait for each other, so that none is lost', async () => {
    const both = [act({ do: 'remove', shapes: ['#a'] }), act({ do: 'unite', shapes: ['#a'] })];
    await settled();
    expect(calls.length).toBe(1);
    done(calls[0]!);
    await settled();
    expect(calls[1]!.edits.map(({ action }) => action.do)).toEqual(['remove', 'unite']);
    done(calls[1]!, '1 shape united');
    await Promise.all(both);
    expect(editsOf()).toEqual(['remove', 'unite']);
    expect(useOutline.getState()).toMatchObject({ busy: false, said: '1 shape united' });
  });

  it('that fail are said, and the next goes on', async () => {
    const both = [act({ do: 'unite', shapes: ['#a'] }), act({ do: 'remove', shapes: ['#a'] })];
    await settled();
    calls[0]!.answer({ ok: false, error: { message: 'They cannot be united.' } });
    await settled();
    expect(useOutline.getState().busy).toBe(true);
    done(calls[1]!);
    await Promise.all(both);
    expect(editsOf()).toEqual(['remove']);
  });

  it('do not overwrite what was changed while they were computed', async () => {
    const edited = act({ do: 'remove', shapes: ['#a'] });
    await settled();
    store.dispatch({ do: 'rename-project', name: 'Meanwhile' });
    done(calls[0]!);
    await edited;
    expect(present().name).toBe('Meanwhile');
    expect(editsOf()).toEqual([]);
  });

  it('of one gesture undo as one', async () => {
    for (const name of ['M0 0H1V1Z', 'M0 0H2V2Z', 'M0 0H3V3Z']) {
      const edited = act({ do: 'path', shape: '#a', d: name }, 'drag 1');
      await settled();
      done(calls.at(-1)!);
      await edited;
    }
    expect(editsOf()).toEqual(['path']);
    store.undoChange();
    expect(present()).toBe(project);
  });
});
