// The examples of docs/adding.md do what they say. That they are of the right kind is checked with all other types.
import { existsSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { joinBytes } from '../../core/formats/part.ts';
import { readSvg } from '../../core/formats/svg/read.ts';
import { PLAIN } from '../../core/materials/schema.ts';
import { isSound, proofOf } from '../../core/mesh/proof.ts';
import { PROFILES, profileRows } from '../../core/solid/profile.ts';
import { audit } from '../../core/testing/audit.ts';
import { cube } from '../../core/testing/meshes.ts';
import { projectOf } from '../../core/testing/projects.ts';
import { plate, plateBuilder } from './build.ts';
import { turnStack } from './command.ts';
import { off } from './format.ts';
import { thumbnail } from './profile.ts';

const WASHER = readSvg(
  '<svg viewBox="0 0 20 20"><path fill="#345" fill-rule="evenodd" d="M0 0H20V20H0ZM5 5V15H15V5Z"/><circle cx="10" cy="10" r="2" fill="#c33"/></svg>',
);

describe('the profile', () => {
  it('runs from the wall to the front, never back, as those that are there do', () => {
    for (const steps of [1, 2, 5, 12]) {
      const own = thumbnail.rows(steps);
      expect([own[0], own.at(-1)]).toEqual([
        [0, 0],
        [1, 1],
      ]);
      const insets = own.map(([inset]) => inset);
      expect(insets).toEqual(insets.toSorted((a, b) => a - b));
      expect(profileRows(PROFILES[0], steps).heights.at(-1)).toBe(own.at(-1)![1]);
    }
  });
});

describe('the format', () => {
  it('reads what it wrote', async () => {
    const [file] = off.write([{ name: 'cube', mesh: cube(2), material: PLAIN }]);
    const bytes = joinBytes([...file!.chunks]);
    expect(off.sniff(bytes)).toBe(true);
    const [part] = await off.read(bytes);
    expect(audit(part!.mesh.positions, part!.mesh.corners)).toEqual(audit(cube(2).positions, cube(2).corners));
  });

  it('refuses what ends too early', async () => {
    await expect(off.read(new TextEncoder().encode('OFF\n3 1 0\n0 0 0\n1 0 0\n'))).rejects.toThrow(/ends before/);
  });
});

describe('the command', () => {
  it('turns the stack, and twice is as it was', () => {
    const { project } = projectOf(WASHER);
    const turned = turnStack.apply(project);
    expect(turned.layers.map(({ id }) => id)).toEqual(project.layers.map(({ id }) => id).reverse());
    expect(turnStack.apply(turned).layers).toEqual(project.layers);
  });
});

describe('the build', () => {
  it('raises closed plates of one plan', () => {
    const { project, evaluator } = projectOf(WASHER);
    const { regions } = evaluator.outlines(project, project.layers[0]!);
    const input = {
      regions,
      extent: 20,
      meshes: [],
      placement: { scale: 1, origin: [0, 0] as const },
      profiles: [],
      others: new Map(),
    };
    const thin = plate.start({ depth: 1, reach: 0, size: 20 });
    const plan = plateBuilder.plan(input, thin);
    for (const thickness of [1, 7]) {
      const { mesh } = plateBuilder.raise(plan, input, plate.withHeight(thin, thickness));
      const proof = proofOf(mesh);
      expect(isSound(proof)).toBe(true);
      // 20 × 20 without 10 × 10.
      expect(proof.volume).toBeCloseTo(300 * thickness, 6);
    }
  });
});

it('the guide names only what is there', () => {
  const guide = readFileSync('docs/adding.md', 'utf8');
  const named = [...guide.matchAll(/`((?:core|web|docs|server)\/[\w./-]+)`/g)].map(([, path]) => path!);
  expect(named.length).toBeGreaterThan(15);
  expect(named.filter((path) => !existsSync(path))).toEqual([]);
});
