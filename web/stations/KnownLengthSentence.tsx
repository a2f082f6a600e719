// KnownLengthSentence.tsx — the length of a line over a source; typing the true one gives the source its real size.
import type { Source } from '../../core/index.ts';
import { Sentence } from '../controls/Panel.tsx';
import { Value } from '../controls/Value.tsx';
import { dispatch, useDocumentPart } from '../store/project.ts';

/** @param length in user units of the source, more than 0 */
export function KnownLengthSentence({ source, length }: { source: Source; length: number }) {
  const unit = useDocumentPart((document) => document.unit);
  const measured = length * source.scale;
  return (
    <Sentence>
      That line measures{' '}
      <Value
        label="Known length"
        value={Number(measured.toPrecision(6))}
        unit={unit}
        min={1e-6}
        step={Number(measured.toPrecision(1)) / 10}
        onChange={(v, gesture) => dispatch({ do: 'scale-source', source: source.id, scale: v / length }, gesture)}
      />
      .
    </Sentence>
  );
}
