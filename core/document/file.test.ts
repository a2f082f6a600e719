// Projects as files: there and back, and what is refused. Zips are taken apart and made by the general-purpose library.
import { createHash } from 'node:crypto';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { readSvg } from '../formats/svg/read.ts';
import { projectOf } from '../testing/projects.ts';
import { isProjectFile, readProjectFile, writeProjectFile } from './file.ts';
import { emptyProject, type Project } from './schema.ts';

const hashOf = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
const SVG = '<svg viewBox="0 0 9 9"><rect width="9" height="4"/></svg>';
const bytes = strToU8(SVG);
const asset = hashOf(bytes);
const { project } = projectOf(readSvg(SVG));
const document: Project = {
  ...project,
  sources: project.sources.map((source) => ({ ...source, asset }) as typeof source),
};
const file = writeProjectFile({ document, assets: { [asset]: bytes } });

describe('a project file', () => {
  it('is a zip with the document and the bytes of its sources, the same every time', () => {
    const entries = unzipSync(file);
    expect(Object.keys(entries)).toEqual(['project.json', `assets/${asset}`]);
    expect(JSON.parse(strFromU8(entries['project.json']!))).toEqual(document);
    expect(entries[`assets/${asset}`]).toEqual(bytes);
    expect(writeProjectFile({ document, assets: { [asset]: bytes } })).toEqual(file);
    expect(isProjectFile(file)).toBe(true);
  });

  it('comes back as it went', async () => {
    const read = await readProjectFile(file, hashOf);
    expect(read.document).toEqual(document);
    expect(read.assets).toEqual({ [asset]: bytes });
    const none = writeProjectFile({ document: emptyProject('Nothing'), assets: {} });
    expect((await readProjectFile(none, hashOf)).document.name).toBe('Nothing');
  });

  const zipped = (entries: Record<string, Uint8Array>) => zipSync(entries, { mtime: '2000-01-01' });
  const json = strToU8(JSON.stringify(document));
  it.each([
    ['nothing', new Uint8Array(), 'bad-file', /not a project file/],
    ['a picture', Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 0), 'bad-file', /not a project file/],
    ['a zip of something else', zipped({ 'word/document.xml': json }), 'bad-file', /not a project file/],
    ['one cut short', file.subarray(0, file.length - 60), 'bad-file', /damaged/],
    ['one whose drawing is missing', zipped({ 'project.json': json }), 'bad-file', /bytes of .* are missing/],
    [
      'one whose drawing was exchanged',
      zipped({ 'project.json': json, [`assets/${asset}`]: strToU8('<svg/>') }),
      'bad-file',
      /not what they were/,
    ],
    ['one whose document is no JSON', zipped({ 'project.json': strToU8('{') }), 'bad-file', /cannot be read/],
    ['one of a newer version', zipped({ 'project.json': strToU8('{"version": 99}') }), 'bad-file', /newer version/],
    [
      'one that unpacks to gigabytes',
      zipped({ 'project.json': json, 'assets/x': new Uint8Array(600 * 2 ** 20) }),
      'too-large',
      /more than 512 MB/,
    ],
  ])('is refused in a sentence where it is %s', async (_, damaged, code, message) => {
    await expect(readProjectFile(damaged, hashOf)).rejects.toMatchObject({
      code,
      message: expect.stringMatching(message),
    });
  });
});
