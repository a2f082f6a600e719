// useBringIn.ts — what happens to files that are dropped, pasted or chosen inside a project.
import { useNavigate } from 'react-router';
import { bringIn } from '../../store/import.ts';

/** Brings files into the project; a project file is opened instead. */
export function useBringIn(): (files: readonly File[]) => void {
  const navigate = useNavigate();
  return (files) => {
    bringIn(files).then((opened) => opened && navigate(`/projects/${opened}`));
  };
}
