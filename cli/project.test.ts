// Project files on the command line: any format, and one clear line where there is nothing to be had.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import {
  applyCommand,
  Evaluator,
  emptyProject,
  exportProject,
  type Project,
  resolve,
  writeProjectFile,
} from '../core/index.ts';
import { NO_PICTURES, wishesOf } from '../core/testing/projects.ts';
import { hashOf, readerOf } from '../node/reader.ts';

const FOLDER = mkdtempSync(join(tmpdir(), 'project-'));
afterAll(() => rmSync(FOLDER, { recursive: true, force: true }));
const at = (name: string) => join(FOLDER, name);

function run(...words: string[]) {
  const { status, stdout, stderr } = spawnSync(process.execPath, ['cli/bin.js', ...words], { encoding: 'utf8' });
  return { status, stdout, stderr };
}

const SVG = new TextEncoder().encode(
  '<svg viewBox="0 0 20 10"><rect id="board" width="20" height="10" fill="#234"/><circle id="lamp" cx="5" cy="5" r="3" fill="#db4"/></svg>',
);
const ASSET = hashOf(SVG);

async function signed(): Promise<{ project: Project; evaluator: Evaluator; bytes: Uint8Array }> {
  const evaluator = new Evaluator();
  const file = { id: 'source', name: 'sign.svg', asset: ASSET, head: SVG };
  const { source, layers } = await evaluator.bringIn(
    file,
    readerOf(() => SVG),
    wishesOf({ depth: 3 }),
  );
  const project = applyCommand(emptyProject('Harbour sign'), { do: 'add-source', source, layers: [...layers] });
  return { project, evaluator, bytes: writeProjectFile({ document: project, assets: { [ASSET]: SVG } }) };
}

describe('outline-stack project', () => {
  it.each(['glb', 'obj', 'stl', 'svg'] as const)('writes %s as the evaluation has it', async (format) => {
    const { project, evaluator, bytes } = await signed();
    writeFileSync(at('sign.outline'), bytes);
    expect(run('project', at('sign.outline'), '--out', at(`sign.${format}`))).toMatchObject({ status: 0, stderr: '' });
    const { files } = await exportProject(evaluator, resolve(project), { format, lengths: 'metres' }, NO_PICTURES);
    expect(Buffer.from(files[format]!).equals(readFileSync(at(`sign.${format}`)))).toBe(true);
    // A file beside it goes by the name that the first one knows it by.
    if (format === 'obj') {
      expect(readFileSync(at('sign.obj'), 'utf8')).toContain('mtllib Harbour_sign.mtl');
      expect(readFileSync(at('Harbour_sign.mtl'), 'utf8')).toContain('newmtl');
    }
  });

  it.each([
    ['what is no project', () => SVG, 'This is not a project file'],
    ['what is torn', (bytes: Uint8Array) => bytes.subarray(0, 200), 'The project file is damaged'],
  ])('refuses %s and writes nothing', async (name, damaged, sentence) => {
    const { bytes } = await signed();
    writeFileSync(at(`${name}.outline`), damaged(bytes));
    const { status, stderr, stdout } = run('project', at(`${name}.outline`), '--out', at('never.glb'));
    expect(status).toBe(1);
    expect(stdout + stderr).toContain(sentence);
    expect(() => readFileSync(at('never.glb'))).toThrow();
  });

  it('refuses what a newer version saved', async () => {
    const { project } = await signed();
    const document = { ...project, version: 99 } as unknown as Project;
    writeFileSync(at('newer.outline'), writeProjectFile({ document, assets: { [ASSET]: SVG } }));
    const { status, stderr, stdout } = run('project', at('newer.outline'), '--out', at('never.glb'));
    expect(status).toBe(1);
    expect(stdout + stderr).toContain('saved by a newer version');
  });
});
