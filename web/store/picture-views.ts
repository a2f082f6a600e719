// views.ts — a picture as the worker draws it, kept as long as it is shown.
import { useEffect, useState } from 'react';
import { drawingKey, type PictureOn, type PictureSource, type Project } from '../../core/index.ts';
import { geometry } from '../worker/client.ts';
import type { DifferenceView, PictureLook, PictureView } from '../worker/geometry/pictures.ts';

/** The picture after its first `upTo` steps; the last one stays until the next is there. */
export function usePictureView(source: PictureSource, upTo: number): PictureView | null {
  const key = JSON.stringify(['picture', source.asset, source.prepare.slice(0, upTo), source.trace.ink]);
  return useLatest(key, () => geometry((api) => api.pictureView(source, upTo)));
}

/** What the picture is like as it came; null until that is known. */
export function usePictureLook(source: PictureSource): PictureLook | null {
  return useLatest(`look ${source.asset}`, () => geometry((api) => api.pictureLook(source)));
}

/** A picture that lies on a side; null until it is there, and where there is none. */
export function useSidePicture(picture: PictureOn | undefined): ImageBitmap | null {
  const view = useLatest(picture ? `side ${picture.asset}` : null, () => geometry((api) => api.sidePicture(picture!)));
  return view?.bitmap ?? null;
}

/**
 * Where picture and outlines disagree; null when it is not asked for.
 * @param only ids of the shapes that are compared; null for all that are kept
 */
export function useDifference(
  project: Project,
  source: PictureSource,
  isWanted: boolean,
  only: readonly string[] | null = null,
): DifferenceView | null {
  const layers = project.layers.flatMap((layer) =>
    layer.source === source.id ? [[layer.shown, layer.skipped, layer.members.length]] : [],
  );
  const key = isWanted ? JSON.stringify(['difference', source.id, drawingKey(source), only ?? layers]) : null;
  return useLatest(key, () => geometry((api) => api.difference(project, source, only)));
}

/** Answers that are kept for whoever asks the same: the view and the sentences beside it. Pictures are large, so few. */
const MOST_KEPT = 4;
const kept = new Map<string, Promise<Answer<unknown>>>();

function once<T>(key: string, ask: () => Promise<Answer<T>>): Promise<Answer<T>> {
  const known = kept.get(key) as Promise<Answer<T>> | undefined;
  if (known) return known;
  const asked = ask().then((answer) => {
    if (!answer.ok) kept.delete(key);
    return answer;
  });
  kept.set(key, asked);
  if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value!);
  return asked;
}

type Answer<T> = { readonly ok: true; readonly value: T } | { readonly ok: false };

function useLatest<T>(key: string | null, ask: () => Promise<Answer<T>>): T | null {
  const [shown, setShown] = useState<T | null>(null);
  // The key holds all that the question depends on.
  // biome-ignore lint/correctness/useExhaustiveDependencies: see above
  useEffect(() => {
    if (key === null) {
      setShown(null);
      return;
    }
    let isWanted = true;
    void once(key, ask).then((answer) => {
      if (isWanted && answer.ok) setShown(answer.value);
    });
    return () => {
      isWanted = false;
    };
  }, [key]);
  return shown;
}
