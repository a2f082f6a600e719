// places.ts — where everything stands: the middles of layers and groups as they are now, and the moves that follow from what the
// document says of their placement. No mesh is changed by it.
import { OfObject } from '../base/of-object.ts';
import { heightOf } from '../builds/index.ts';
import { type Group, groupsAbove } from '../document/groups.ts';
import { copiesOf, type MIDDLES, type Middle, rigidOf } from '../document/placement.ts';
import type { Resolved } from '../document/resolve.ts';
import type { Layer } from '../document/schema.ts';
import type { Stand, StandingGroup } from '../formats/part.ts';
import { isStill, moved, type Point, product, type Rigid, STAY } from '../geometry/rigid.ts';
import { enclosedBy } from '../mesh/centroid.ts';
import { boxOfPoints } from '../mesh/place.ts';
import type { Mesh } from '../mesh/types.ts';
import { centroidOf, regionsArea, ringsOf } from '../outline/measure.ts';
import type { Region } from '../outline/types.ts';
import type { Way } from '../path/way.ts';

export interface PlacedBox {
  readonly min: Point;
  readonly max: Point;
}

/** Points a thing can be turned about, where it stands before its own placement. */
export type Middles = Readonly<Record<(typeof MIDDLES)[number], Point>>;

/** A layer as it is built, on height 0; null where it is not. */
export interface Solid {
  readonly mesh: Mesh;
  readonly regions: readonly Region[];
}

/** What a middle is found from: boxes, and weights with their centroids. */
interface Weighed {
  readonly box: PlacedBox;
  readonly area: readonly [weight: number, middle: Point];
  readonly volume: readonly [weight: number, middle: Point];
}

const boxes = new OfObject((mesh: Mesh): PlacedBox => {
  const { min, max } = boxOfPoints([mesh.positions]);
  return { min: min as unknown as Point, max: max as unknown as Point };
});
const enclosed = new OfObject((mesh: Mesh) => ({ of: enclosedBy(mesh) }));
const areas = new OfObject((regions: readonly Region[]) => ({
  area: regionsArea(regions),
  at: centroidOf(ringsOf(regions)),
}));

/** The places of a project's layers and groups. */
export class Places {
  private readonly project: Resolved;
  private readonly solidOf: (layer: Layer) => Solid | null;
  private readonly pathOf: (layer: string) => Way | null;
  private readonly weights = new Map<Layer | Group, Weighed | null>();
  private readonly groups = new Map<Group, readonly StandingGroup[]>();
  private readonly chains = new Map<string, readonly Rigid[]>();

  /** @param wayOf the longest outline or line of a layer, where it was drawn; null where it has none */
  constructor(project: Resolved, solidOf: (layer: Layer) => Solid | null, wayOf: (layer: Layer) => Way | null) {
    this.project = project;
    this.solidOf = solidOf;
    this.pathOf = (id) => {
      const layer = project.layers.find((each) => each.id === id);
      return layer ? wayOf(layer) : null;
    };
  }

  /** Where each copy of a layer or a group stands, in the world; the first is the thing itself. */
  of(thing: Layer | Group): readonly Rigid[] {
    const known = this.chains.get(thing.id);
    if (known) return known;
    const outer = this.above(thing);
    const own = this.ownOf(thing);
    const all = outer ? this.of(outer).flatMap((place) => own.map((inner) => product(place, inner))) : own;
    this.chains.set(thing.id, all);
    return all;
  }

  /** Where each copy of a layer stands in a file, and in which groups; null for one that stands as it was drawn, by itself. */
  stands(layer: Layer): Stand[] | null {
    const group = this.above(layer);
    if (!group && !layer.placement) return null;
    return this.standsIn(layer, group ? this.groupStands(group) : [undefined]);
  }

  private groupStands(group: Group): readonly StandingGroup[] {
    const known = this.groups.get(group);
    if (known) return known;
    const outer = this.above(group);
    const stands = this.standsIn(group, outer ? this.groupStands(outer) : [undefined]).map((stand) => ({
      ...stand,
      name: group.name,
    }));
    this.groups.set(group, stands);
    return stands;
  }

  private standsIn(thing: Layer | Group, outer: readonly (StandingGroup | undefined)[]): Stand[] {
    const middle = this.middle(thing, thing.placement?.middle ?? 'box');
    return outer.flatMap((group) =>
      this.ownOf(thing).map((own) => ({
        place: group ? product(group.place, own) : own,
        middle,
        ...(group ? { group } : {}),
      })),
    );
  }

  /** Where each copy stands in the group that it is in. */
  ownOf(thing: Layer | Group): readonly Rigid[] {
    const { placement } = thing;
    if (!placement) return [STAY];
    const middle = this.middle(thing, placement.middle);
    const first = rigidOf(placement, middle);
    return copiesOf(placement.copies, moved(first, middle), this.pathOf).map((copy) => product(copy, first));
  }

  /** The group that something is in. */
  above(thing: Layer | Group): Group | null {
    const id = 'source' in thing ? thing.group : thing.within;
    return groupsAbove(this.project.groups ?? [], id).at(-1) ?? null;
  }

  /** Where something has its middle before its own placement; the middle of the sheet for what is not built. */
  middle(thing: Layer | Group, middle: Middle): Point {
    if (typeof middle !== 'string') return middle;
    return this.middles(thing)[middle];
  }

  middles(thing: Layer | Group): Middles {
    const weighed = this.weighed(thing);
    const origin: Point = [0, 0, 0];
    if (!weighed) return { box: origin, area: origin, volume: origin, bottom: origin };
    const { box, area, volume } = weighed;
    const middle = middleOf(box);
    return { box: middle, area: area[1], volume: volume[1], bottom: [middle[0], box.min[1], middle[2]] };
  }

  /** Around all copies of something in the world; null for what is not built. */
  box(thing: Layer | Group): PlacedBox | null {
    const layers = 'source' in thing ? [thing] : this.layersOf(thing);
    return boxAround(layers.flatMap((layer) => this.of(layer).flatMap((place) => this.boxOf(layer, place) ?? [])));
  }

  private layersOf({ id }: Group): Layer[] {
    const { layers, groups = [] } = this.project;
    return layers.filter(({ group }) => groupsAbove(groups, group).some((above) => above.id === id));
  }

  private weighed(thing: Layer | Group): Weighed | null {
    const known = this.weights.get(thing);
    if (known !== undefined) return known;
    const found = 'source' in thing ? this.weighedLayer(thing) : this.weighedGroup(thing);
    this.weights.set(thing, found);
    return found;
  }

  private weighedLayer(layer: Layer): Weighed | null {
    const solid = this.solidOf(layer);
    const box = solid && this.boxOf(layer, STAY);
    if (!solid || !box) return null;
    const middle = middleOf(box);
    const { area, at } = areas.get(solid.regions);
    const inside = enclosed.get(solid.mesh).of;
    const high = layer.base + heightOf(layer.build) / 2;
    return {
      box,
      area: area > 0 ? [area, [at[0], at[1], high]] : [0, middle],
      volume: inside ? [inside.volume, raised(inside.middle, layer.base)] : [0, middle],
    };
  }

  private weighedGroup(group: Group): Weighed | null {
    const { layers, groups = [] } = this.project;
    const members: (Layer | Group)[] = [
      ...layers.filter((layer) => layer.group === group.id),
      ...groups.filter((inner) => inner.within === group.id),
    ];
    const placed = members.flatMap((member) => {
      const weighed = this.weighed(member);
      if (!weighed) return [];
      return this.ownOf(member).map((place) => ({ member, weighed, place }));
    });
    const box = boxAround(placed.flatMap(({ member, weighed, place }) => this.memberBox(member, weighed, place)));
    if (!box) return null;
    const middle = middleOf(box);
    const mean = (of: 'area' | 'volume') =>
      meanOf(
        placed.map(({ weighed, place }) => [weighed[of][0], moved(place, weighed[of][1])]),
        middle,
      );
    return { box, area: mean('area'), volume: mean('volume') };
  }

  private memberBox(member: Layer | Group, { box }: Weighed, place: Rigid): PlacedBox[] {
    if (isStill(place)) return [box];
    if ('source' in member) return [this.boxOf(member, place)!];
    // The boxes of what is in it, each turned: that of the whole, turned, would be too large.
    return this.layersOf(member).flatMap((layer) =>
      this.withinOf(layer, member).flatMap((own) => this.boxOf(layer, product(place, own)) ?? []),
    );
  }

  /** Where each copy of a layer stands in a group around it, before that group's own placement. */
  private withinOf(layer: Layer, group: Group): Rigid[] {
    let places: Rigid[] = [...this.ownOf(layer)];
    for (let above = this.above(layer); above && above !== group; above = this.above(above)) {
      const outer = this.ownOf(above);
      places = outer.flatMap((each) => places.map((own) => product(each, own)));
    }
    return places;
  }

  private boxOf(layer: Layer, place: Rigid): PlacedBox | null {
    const solid = this.solidOf(layer);
    if (!solid || solid.mesh.positions.length === 0) return null;
    return boxOfPlaced(solid.mesh, product(place, [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, layer.base]));
  }
}

/** Of a mesh after a move: of its box where axes come onto axes, of its points where they do not. */
function boxOfPlaced(mesh: Mesh, place: Rigid): PlacedBox {
  const { min, max } = boxes.get(mesh);
  const isSquare = [0, 4, 8].every((row) => [0, 1, 2].filter((k) => place[row + k] !== 0).length === 1);
  if (isSquare) {
    const [a, b] = [moved(place, min), moved(place, max)];
    return {
      min: a.map((v, k) => Math.min(v, b[k]!)) as unknown as Point,
      max: a.map((v, k) => Math.max(v, b[k]!)) as unknown as Point,
    };
  }
  const { positions: p } = mesh;
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < p.length; i += 3) {
    const at = moved(place, [p[i]!, p[i + 1]!, p[i + 2]!]);
    for (let k = 0; k < 3; k++) {
      if (at[k]! < low[k]!) low[k] = at[k]!;
      if (at[k]! > high[k]!) high[k] = at[k]!;
    }
  }
  return { min: low as unknown as Point, max: high as unknown as Point };
}

/** Null around nothing. */
export function boxAround(parts: readonly PlacedBox[]): PlacedBox | null {
  if (parts.length === 0) return null;
  const of = (k: 0 | 1 | 2, side: 'min' | 'max') =>
    parts.reduce((found, part) => Math[side](found, part[side][k]), side === 'min' ? Infinity : -Infinity);
  return { min: [of(0, 'min'), of(1, 'min'), of(2, 'min')], max: [of(0, 'max'), of(1, 'max'), of(2, 'max')] };
}

const raised = ([x, y, z]: Point, by: number): Point => [x, y, z + by];

const middleOf = ({ min, max }: PlacedBox): Point => [
  (min[0] + max[0]) / 2,
  (min[1] + max[1]) / 2,
  (min[2] + max[2]) / 2,
];

/** @param otherwise where nothing has any weight */
function meanOf(parts: readonly (readonly [weight: number, at: Point])[], otherwise: Point): readonly [number, Point] {
  const total = parts.reduce((sum, [weight]) => sum + weight, 0);
  if (!(total > 0)) return [0, otherwise];
  const mean = (k: 0 | 1 | 2) => parts.reduce((sum, [weight, at]) => sum + weight * at[k], 0) / total;
  return [total, [mean(0), mean(1), mean(2)]];
}
