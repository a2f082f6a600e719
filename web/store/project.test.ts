// The open project and what becomes of its changes: saved, refused, left at once, left without a server.
import 'fake-indexeddb/auto';
import { clear, createStore } from 'idb-keyval';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { emptyProject, type Project, type ProjectReply } from '../../core/index.ts';

/** A server as the pages see it: one project, one revision after another; it can be gone, slow, or lose its answers. */
class FakeServer {
  document: Project = emptyProject('Sign');
  revision = 1;
  isGone = false;
  isDeleted = false;
  losesAnswers = false;
  saves = 0;
  /** Saves wait for it. */
  gate: Promise<void> = Promise.resolve();

  reply(): ProjectReply {
    return { id: 'p', revision: this.revision, isDemo: false, document: this.document };
  }

  readonly fetch = async (path: string, init?: RequestInit): Promise<Response> => {
    if (this.isGone) throw new TypeError('Failed to fetch');
    if (init?.method !== 'PUT') return Response.json(this.reply());
    await this.gate;
    this.saves++;
    if (this.isDeleted && path.endsWith('/p')) {
      return Response.json({ error: { code: 'not-found', message: 'There is no project p.' } }, { status: 404 });
    }
    const { base, document } = JSON.parse(init.body as string);
    if (base !== this.revision) {
      const error = { code: 'conflict', message: 'Changed elsewhere.' };
      return Response.json({ error, current: this.reply() }, { status: 409 });
    }
    this.revision++;
    this.document = document;
    if (this.losesAnswers) throw new TypeError('Failed to fetch');
    return Response.json({ revision: this.revision });
  };
}

const steps = createStore('steps of projects', 'steps');
let server: FakeServer;
let store: typeof import('./project.ts');
let unsaved: typeof import('./unsaved.ts');

/** What the page that is loaded waits for; a page that is gone waits for nothing any more. */
const timers: NodeJS.Timeout[] = [];
const { setTimeout } = globalThis;
const setPageTimeout = (act: () => void, delay: number) => {
  timers.push(setTimeout(act, delay));
  return timers.at(-1);
};
const unloadPage = () => timers.splice(0).forEach(clearTimeout);

/** The stores as a page that was just loaded has them; what the browser keeps stays. */
async function loadPage(): Promise<void> {
  unloadPage();
  vi.resetModules();
  store = await import('./project.ts');
  unsaved = await import('./unsaved.ts');
}
async function openProject(): Promise<void> {
  store.openProject(await store.fetchNewest('p'));
}
const state = () => store.useProject.getState();
const rename = (name: string) => store.dispatch({ do: 'rename-project', name });
/** Until what was begun has been written down; nothing here takes longer. */
const settled = () => new Promise((wait) => setTimeout(wait, 30));

beforeEach(async () => {
  await clear();
  await clear(steps);
  server = new FakeServer();
  vi.stubGlobal('fetch', server.fetch);
  vi.stubGlobal('setTimeout', setPageTimeout);
  await loadPage();
  await openProject();
});
afterEach(() => {
  store.closeProject();
  unloadPage();
  vi.unstubAllGlobals();
});

describe('changes of one gesture', () => {
  const name = () => state().history!.present.name;
  afterEach(() => vi.waitFor(() => expect(state().save).toBe('saved'), 10_000));

  it('undo as one, and those of the next one apart from them', () => {
    for (const each of ['a', 'ab', 'abc']) store.dispatch({ do: 'rename-project', name: each }, 'first drag');
    for (const each of ['x', 'xy']) store.dispatch({ do: 'rename-project', name: each }, 'second drag');
    store.undoChange();
    expect(name()).toBe('abc');
    store.undoChange();
    expect(name()).toBe('Sign');
    store.redoChange();
    expect(name()).toBe('abc');
  });

  it('are not gone on with after an undo, or after a change by itself', () => {
    store.dispatch({ do: 'rename-project', name: 'a' }, 'drag');
    store.undoChange();
    store.dispatch({ do: 'rename-project', name: 'b' }, 'drag');
    rename('alone');
    store.dispatch({ do: 'rename-project', name: 'c' }, 'drag');
    const undone = Array.from({ length: 4 }, () => {
      store.undoChange();
      return name();
    });
    expect(undone).toEqual(['alone', 'b', 'Sign', 'Sign']);
  });
});

describe('an open project', () => {
  it('is saved a moment after it was changed, several changes at once', async () => {
    rename('One');
    rename('Two');
    expect(state().save).toBe('unsaved');
    await vi.waitFor(() => expect(state().save).toBe('saved'), 10_000);
    expect([server.document.name, server.saves, state().revision]).toEqual(['Two', 1, 2]);
  });

  it('goes on being saved where it was changed while a save was under way', async () => {
    let open = () => {};
    server.gate = new Promise((resolve) => {
      open = resolve;
    });
    rename('One');
    const saving = store.saveNow();
    rename('Two');
    open();
    await saving;
    await store.saveNow();
    expect([server.document.name, state().save]).toEqual(['Two', 'saved']);
  });

  it('offers both versions where someone else saved first', async () => {
    server.revision = 2;
    server.document = emptyProject('Theirs');
    rename('Mine');
    await store.saveNow();
    expect([state().save, state().conflict?.document.name]).toEqual(['conflict', 'Theirs']);
    store.resolveConflict('theirs');
    expect([state().history?.present.name, state().save, state().revision]).toEqual(['Theirs', 'saved', 2]);
    store.undoChange();
    await store.saveNow();
    expect(server.document.name).toBe('Mine');
  });

  it('takes a save whose answer was lost for no conflict', async () => {
    server.losesAnswers = true;
    rename('One');
    await store.saveNow();
    expect(state().save).toBe('failed');
    server.losesAnswers = false;
    await store.saveNow();
    expect([state().save, state().conflict, state().revision]).toEqual(['saved', null, 2]);
  });

  it('says what was refused, and stays as it was', () => {
    const before = state().history;
    store.dispatch({ do: 'remove-layer', layer: 'nobody' });
    expect([state().history, state().refusal]).toEqual([before, expect.stringMatching(/no layer nobody/)]);
  });
});

describe('a project that is left', () => {
  it('at once is saved all the same', async () => {
    rename('Left');
    store.closeProject();
    await openProject();
    expect([server.document.name, state().history?.present.name, state().save]).toEqual(['Left', 'Left', 'saved']);
  });

  it('while a save is under way has only what is newer sent after it', async () => {
    let open = () => {};
    server.gate = new Promise((resolve) => {
      open = resolve;
    });
    rename('One');
    void store.saveNow();
    rename('Two');
    store.closeProject();
    open();
    await store.allSaved();
    expect([server.document.name, server.revision]).toEqual(['Two', 3]);
    expect(unsaved.useUnsaved.getState().left).toEqual([]);
  });

  it('without a server is kept, said, and sent when it is back', async () => {
    server.isGone = true;
    rename('Kept');
    await store.saveNow();
    expect(state().save).toBe('failed');
    store.closeProject();
    await store.allSaved();
    expect(unsaved.useUnsaved.getState().left).toMatchObject([{ id: 'p', base: 1, because: 'unreachable' }]);
    server.isGone = false;
    await unsaved.sendLeft();
    expect([server.document.name, unsaved.useUnsaved.getState().left]).toEqual(['Kept', []]);
  });

  it('without a server outlives the page, and is taken up where it is opened again', async () => {
    server.isGone = true;
    rename('Kept');
    store.closeProject();
    await store.allSaved();
    await settled();
    await loadPage();
    server.isGone = false;
    const opening = await store.fetchNewest('p');
    expect(opening.unsaved?.document.name).toBe('Kept');
    store.openProject(opening);
    expect([state().history?.present.name, state().save]).toEqual(['Kept', 'unsaved']);
    await store.saveNow();
    expect(server.document.name).toBe('Kept');
    await settled();
    await loadPage();
    expect(await unsaved.takeUp('p')).toBeNull();
  });

  it('without a server, and is changed elsewhere meanwhile, offers both versions when it is opened', async () => {
    server.isGone = true;
    rename('Mine');
    store.closeProject();
    await store.allSaved();
    server.isGone = false;
    server.revision = 2;
    server.document = emptyProject('Theirs');
    await unsaved.sendLeft();
    expect(unsaved.useUnsaved.getState().left).toMatchObject([{ because: 'conflict' }]);
    await openProject();
    expect([state().save, state().conflict?.document.name]).toEqual(['conflict', 'Theirs']);
    store.resolveConflict('mine');
    await store.saveNow();
    expect(server.document.name).toBe('Mine');
  });

  it('without a server, and is deleted meanwhile, can be kept as a new one', async () => {
    server.isGone = true;
    rename('Mine');
    store.closeProject();
    await store.allSaved();
    server.isGone = false;
    server.isDeleted = true;
    await unsaved.sendLeft();
    const [left] = unsaved.useUnsaved.getState().left;
    expect(left).toMatchObject({ because: 'deleted' });
    server.isDeleted = false;
    await unsaved.keepAsNew(left!);
    expect([server.document.name, unsaved.useUnsaved.getState().left]).toEqual(['Mine', []]);
  });
});

describe('steps', () => {
  const name = () => state().history!.present.name;
  const visit = async () => {
    store.closeProject();
    await store.allSaved();
    await settled();
    await loadPage();
    await openProject();
  };
  afterEach(() => vi.waitFor(() => expect(state().save).toBe('saved'), 10_000));

  it('are gone back and forth through, also after the page was loaded anew', async () => {
    for (const each of ['a', 'b', 'c']) rename(each);
    store.undoChange();
    await visit();
    expect(name()).toBe('b');
    store.goBack(2);
    expect(name()).toBe('Sign');
    store.goBack(-3);
    expect(name()).toBe('c');
    store.goBack(100);
    expect(name()).toBe('Sign');
  });

  it('are kept where the server writes down fields in another order', async () => {
    rename('a');
    rename('b');
    await store.saveNow();
    server.document = Object.fromEntries(Object.entries(server.document).reverse()) as Project;
    await visit();
    store.undoChange();
    expect(name()).toBe('a');
  });

  it('are kept to the fiftieth, without what they share being kept over and over', async () => {
    for (let i = 0; i < 60; i++) rename(`step ${i}`);
    await visit();
    const { past, present } = state().history!;
    expect([past.length, present.name]).toEqual([50, 'step 59']);
    expect(past[0]!.sources).toBe(present.sources);
  });

  it('end where somebody else went on', async () => {
    rename('mine');
    await store.saveNow();
    server.document = emptyProject('Theirs');
    server.revision++;
    await visit();
    expect([name(), state().history!.past]).toEqual(['Theirs', []]);
  });
});
