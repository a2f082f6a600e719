// ImportNotes.tsx — what came of the files that were dropped last.
import { X } from 'lucide-react';
import type { Unit } from '../../../core/index.ts';
import { IconButton } from '../../controls/IconButton.tsx';
import { Note } from '../../controls/Panel.tsx';
import { countOf, formatNumber } from '../../format.ts';
import { type ImportResult, putAside, useImport } from '../../store/import.ts';
import { useDocumentPart } from '../../store/project.ts';

export function ImportNote({ result, unit }: { result: ImportResult; unit: Unit }) {
  if (result.error) {
    return (
      <Note tone="ember">
        <b>{result.file}</b> was not brought in. {result.error} The project is as it was.
      </Note>
    );
  }
  return (
    <Note tone="tide">
      <b>{result.file}</b> came in as {countOf(result.layers, 'layer')}, {formatNumber(result.size)} {unit} at its
      longest.
      {said(result).map((message) => ` ${message}`)}
    </Note>
  );
}

/** Over the work, at stations that do not list what came in: only what did not go as one would think. */
export function ImportNotes() {
  const results = useImport((state) => state.results);
  const unit = useDocumentPart((project) => project.unit);
  const notes = results.filter((result) => result.error || said(result).length > 0);
  if (notes.length === 0) return null;
  return (
    <div
      className="absolute bottom-4 left-4 z-10 flex max-w-md items-start gap-2 rounded-edge bg-sheet py-1 pr-1 pl-4 shadow"
      role="alert"
    >
      <div className="max-h-48 overflow-y-auto">
        {notes.map((result) => (
          <ImportNote key={result.file} result={result} unit={unit} />
        ))}
      </div>
      <IconButton icon={X} label="Put these notes aside" onClick={putAside} />
    </div>
  );
}

/** Warnings that change how one goes on. */
const said = ({ warnings }: ImportResult) =>
  warnings.filter(({ code }) => SAID.includes(code)).map(({ message }) => message);
const SAID = [
  'start-resample',
  'start-light',
  'start-specks',
  'ground',
  'low-resolution',
  'merged',
  'many',
  'not-built',
  'recentred',
];
