// later.ts — a component whose code is fetched when it is first shown.
import { type ComponentType, lazy } from 'react';

/** @param load its module @param pick the component of it */
export const later = <M, P extends object = object>(load: () => Promise<M>, pick: (module: M) => ComponentType<P>) =>
  lazy(async () => ({ default: pick(await load()) })) as ComponentType<P>;
