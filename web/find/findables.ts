// findables.ts — what can be found: commands of the page and the station, stations, layers, projects.
import { useLocation, useNavigate, useParams } from 'react-router';
import useSWR from 'swr';
import type { Key } from '../controls/keys.ts';
import { api } from '../requests/api.ts';
import { LAYER_KEYS } from '../stations/build/layer-keys.ts';
import { STATIONS } from '../stations/index.ts';
import { useProject } from '../store/project.ts';
import { screen, useScreen } from '../store/screen.ts';
import { toggleTheme } from '../store/theme.ts';
import { PAGE_KEYS } from '../workplace/keys.ts';
import type { Findable } from './finder.ts';

const NO_LAYERS: readonly [] = [];

export function useFindables(): readonly Findable[] {
  const navigate = useNavigate();
  const { id: project } = useParams();
  const path = useLocation().pathname.split('/').at(-1);
  const layers = useProject((state) => state.history?.present.layers) ?? NO_LAYERS;
  const hasChosen = useScreen((state) => state.selected.length > 0);
  const { data: projects = [] } = useSWR('projects', api.projects);
  const commands = (keys: readonly Key[], kind: string): Findable[] =>
    keys.map(({ does, shown, act }) => ({ id: `${kind} ${does}`, words: does, kind, keys: shown, act }));
  const station = STATIONS.find((each) => each.path === path);
  const here: Findable[] = project
    ? [
        ...STATIONS.map(({ path: to, title }) => ({
          id: `station ${to}`,
          words: `Go to ${title}`,
          kind: 'station',
          act: () => navigate(`/projects/${project}/${to}`),
        })),
        ...(hasChosen ? commands(LAYER_KEYS, 'chosen layers') : []),
        ...commands(PAGE_KEYS, 'command'),
        ...commands(station && station.keys !== LAYER_KEYS ? station.keys : [], `at ${station?.title}`),
        ...layers.toReversed().map(({ id, name }) => ({
          id: `layer ${id}`,
          words: name,
          kind: 'layer',
          act: () => screen.select([id]),
        })),
      ]
    : [];
  return [
    ...here,
    { id: 'theme', words: 'Day or night', kind: 'command', act: toggleTheme },
    { id: 'projects', words: 'All projects', kind: 'page', act: () => navigate('/') },
    ...projects.map(({ id, name }) => ({
      id: `project ${id}`,
      words: name,
      kind: 'project',
      act: () => navigate(`/projects/${id}/build`),
    })),
  ];
}
