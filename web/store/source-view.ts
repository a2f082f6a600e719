// source-view.ts — how a picture is looked at while it is worked on; nothing of it belongs to the document.
import { create } from 'zustand';

export type Fill = 'filled' | 'outlined' | 'hidden';

/** What a drag on the picture does besides moving it. */
export type Tool =
  | { readonly kind: 'area'; readonly step: string }
  | { readonly kind: 'length'; readonly from: Place | null; readonly to: Place | null }
  | { readonly kind: 'colour' };

/** In pixels of the source. */
export interface Place {
  readonly x: number;
  readonly y: number;
}

interface SourceView {
  /** The picture that is shown; null takes the first. */
  readonly source: string | null;
  /** Opacity of the picture under its trace. */
  readonly strength: number;
  readonly fill: Fill;
  /** Share of the view that shows the picture as it came; 0 for none. */
  readonly before: number;
  readonly difference: boolean;
  readonly loupe: boolean;
  readonly tool: Tool | null;
  /** The step that is unfolded. */
  readonly openStep: string | null;
}

const START: SourceView = {
  source: null,
  strength: 0.2,
  fill: 'filled',
  before: 0,
  difference: false,
  loupe: false,
  tool: null,
  openStep: null,
};

export const useSourceView = create<SourceView>(() => START);

export const sourceView = {
  set: (change: Partial<SourceView>) => useSourceView.setState(change),
  reset: () => useSourceView.setState(START),
  /** Unfolds a step, or folds it; one that has a frame is worked on in the view. */
  toggleStep(id: string, hasArea: boolean): void {
    const isOpen = useSourceView.getState().openStep === id;
    useSourceView.setState({
      openStep: isOpen ? null : id,
      tool: !isOpen && hasArea ? { kind: 'area', step: id } : null,
    });
  },
};
