// actions.ts — what a preparation can do: its words and start values.
import { enlargement, type PictureSource, type StepAction, windowFor } from '../../../core/index.ts';

export const ACTION_WORDS: readonly (readonly [kind: StepAction['do'], words: string])[] = [
  ['crop', 'Crop'],
  ['straighten', 'Straighten'],
  ['rotate', 'Rotate'],
  ['flip', 'Flip'],
  ['resample', 'Resample'],
  ['light', 'Even out the light'],
  ['levels', 'Levels'],
  ['threshold', 'Threshold'],
  ['invert', 'Invert'],
  ['ground', 'Remove the ground'],
  ['part', 'Pick one part'],
  ['specks', 'Despeckle'],
  ['soften', 'Soften'],
];

/** Whether a step works on a rectangle that is drawn in the view. */
export const hasArea = (action: StepAction) => action.do === 'crop' || action.do === 'part';

export function startAction(kind: StepAction['do'], { width, height }: PictureSource): StepAction {
  switch (kind) {
    case 'crop':
      return { do: 'crop', area: { x: 0.05, y: 0.05, width: 0.9, height: 0.9 }, ratio: null };
    case 'straighten':
      return { do: 'straighten', by: 0 };
    case 'rotate':
      return { do: 'rotate', by: 90 };
    case 'flip':
      return { do: 'flip', way: 'across' };
    case 'resample':
      return { do: 'resample', factor: enlargement({ width, height }) ?? 2 };
    case 'light':
      return { do: 'light', by: 'surface', window: windowFor({ width, height }) };
    case 'levels':
      return { do: 'levels', black: 0.05, white: 0.95, gamma: 1, space: 'encoded' };
    case 'threshold':
      return { do: 'threshold', level: null };
    case 'invert':
      return { do: 'invert' };
    case 'ground':
      return { do: 'ground', by: 'colour', reach: 0.08 };
    case 'part':
      return { do: 'part', area: { x: 0.2, y: 0.2, width: 0.6, height: 0.6 } };
    case 'specks':
      return { do: 'specks', ink: 12, holes: 12 };
    case 'soften':
      return { do: 'soften', radius: 0.8 };
  }
}
