// bundle.ts — the fonts that ship with the application: which files of which packages they are. All are under the SIL
// Open Font Licence 1.1.
import type { BundledFont } from './settings.ts';

export interface FontBundle {
  /** What it is called where it is chosen. */
  readonly label: string;
  /** Files of registry packages, in the order in which they are asked for a letter. */
  readonly files: readonly string[];
}

/** WOFF, which any page can unpack: what unpacks WOFF 2 runs code that a strict page does not allow. */
const files = (name: string, weight: number, subsets: readonly string[]) =>
  subsets.map((subset) => `@fontsource/${name}/files/${name}-${subset}-${weight}-normal.woff`);

export const FONT_BUNDLES: Readonly<Record<BundledFont, FontBundle>> = {
  'display-serif': { label: 'Display serif', files: files('dm-serif-display', 400, ['latin', 'latin-ext']) },
  grotesque: { label: 'Grotesque', files: files('archivo', 700, ['latin', 'latin-ext']) },
  rounded: { label: 'Rounded', files: files('fredoka', 600, ['latin', 'latin-ext', 'hebrew']) },
  'connected-script': { label: 'Connected script', files: files('amiri', 700, ['arabic', 'latin', 'latin-ext']) },
};
