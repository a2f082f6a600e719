// prepare.ts — the steps a picture goes through before it is traced, in the artist's order. Each is data in the document;
// each has a file of its own in steps/.
import { z } from 'zod';
import { CropSchema, crop } from './steps/crop.ts';
import { FlipSchema, flip } from './steps/flip.ts';
import { GroundSchema, ground } from './steps/ground.ts';
import { InvertSchema, invert } from './steps/invert.ts';
import { LevelsSchema, levels } from './steps/levels.ts';
import { LightSchema, light } from './steps/light.ts';
import { PartStepSchema, part } from './steps/part.ts';
import { ResampleSchema, resample } from './steps/resample.ts';
import { RotateSchema, rotate } from './steps/rotate.ts';
import { SoftenSchema, soften } from './steps/soften.ts';
import { SpecksSchema, specks } from './steps/specks.ts';
import { StraightenSchema, straighten } from './steps/straighten.ts';
import { ThresholdSchema, threshold } from './steps/threshold.ts';
import type { Picture, Prepared } from './types.ts';

export const ActionSchema = z.discriminatedUnion('do', [
  CropSchema,
  StraightenSchema,
  FlipSchema,
  RotateSchema,
  ResampleSchema,
  LightSchema,
  LevelsSchema,
  ThresholdSchema,
  InvertSchema,
  GroundSchema,
  PartStepSchema,
  SpecksSchema,
  SoftenSchema,
]);
export type StepAction = z.infer<typeof ActionSchema>;

export const StepSchema = z.object({ id: z.string().min(1).max(200), on: z.boolean(), action: ActionSchema });
/** One step of a picture's preparation; switched off it is kept and passed over. */
export type Step = z.infer<typeof StepSchema>;

/** @throws {GeometryError} 'too-large' when a step would make too large a picture */
export function applyAction(prepared: Prepared, action: StepAction): Prepared {
  switch (action.do) {
    case 'crop':
      return crop(prepared, action);
    case 'straighten':
      return straighten(prepared, action);
    case 'flip':
      return flip(prepared, action);
    case 'rotate':
      return rotate(prepared, action);
    case 'resample':
      return resample(prepared, action);
    case 'light':
      return light(prepared, action);
    case 'levels':
      return levels(prepared, action);
    case 'threshold':
      return threshold(prepared, action);
    case 'invert':
      return invert(prepared);
    case 'ground':
      return ground(prepared, action);
    case 'part':
      return part(prepared, action);
    case 'specks':
      return specks(prepared, action);
    case 'soften':
      return soften(prepared, action);
  }
}

/** A picture as it came, before any step. */
export function unprepared(picture: Picture): Prepared {
  return { picture, frame: { scale: 1, x: 0, y: 0 }, level: null };
}

/** The picture after all steps that are on. @param report called with the share done, 0 … 1 */
export function prepare(picture: Picture, steps: readonly Step[], report?: (share: number) => void): Prepared {
  const active = steps.filter((step) => step.on);
  let prepared = unprepared(picture);
  for (const [i, { action }] of active.entries()) {
    prepared = applyAction(prepared, action);
    report?.((i + 1) / active.length);
  }
  return prepared;
}
