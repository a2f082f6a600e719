// offered.ts — what of an open project can be found by typing: stations, commands, layers.
import { useNavigate } from 'react-router';
import type { Key } from '../controls/keys.ts';
import { type Findable, useOffer } from '../find/finder.ts';
import { LAYER_KEYS } from '../stations/build/layer-keys.ts';
import { STATIONS } from '../stations/index.ts';
import type { Station } from '../stations/kind.ts';
import { useDocumentPart } from '../store/project.ts';
import { screen, useScreen } from '../store/screen.ts';
import { PAGE_KEYS } from './keys.ts';

const commands = (keys: readonly Key[], kind: string): Findable[] =>
  keys.map(({ does, shown, act }) => ({ id: `${kind} ${does}`, words: does, kind, keys: shown, act }));

export function useOffered(station: Station): void {
  const navigate = useNavigate();
  const layers = useDocumentPart((document) => document.layers);
  const hasChosen = useScreen((state) => state.selected.length > 0);
  useOffer('workplace', () => [
    ...STATIONS.map(({ path, title }) => ({
      id: `station ${path}`,
      words: title,
      kind: 'station',
      act: () => navigate(path),
    })),
    ...(hasChosen ? commands(LAYER_KEYS, 'chosen layers') : []),
    ...commands(PAGE_KEYS, 'command'),
    ...commands(
      station.keys.filter((key) => !(LAYER_KEYS as readonly Key[]).includes(key)),
      `at ${station.title}`,
    ),
    ...layers.toReversed().map(({ id, name }) => ({
      id: `layer ${id}`,
      words: name,
      kind: 'layer',
      act: () => screen.select([id]),
    })),
  ]);
}
