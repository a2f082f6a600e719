// lightness.ts — how light layers are.
import { type Layer, lightnessOfHex } from '../../../../../core/index.ts';

/** OKLab lightness, 0 … 1. */
export const lightnessOf = ({ material }: Layer): number => lightnessOfHex(material.colour);
