// MarkSentences.tsx — edges of one layer made hard or soft by hand, and flat faces joined, picked in the view.
import { type ReactNode, useEffect } from 'react';
import type { Layer, Marked, MarkKind } from '../../../../core/index.ts';
import { Choice } from '../../../controls/Choice.tsx';
import { Folded } from '../../../controls/Folded.tsx';
import { Note, Sentence } from '../../../controls/Panel.tsx';
import { TextButton } from '../../../controls/TextButton.tsx';
import { countOf } from '../../../format.ts';
import { useBuild } from '../../../store/build.ts';
import { marking, type Pick, useMarking } from '../../../store/marking.ts';

export function MarkSentences({ layer }: { layer: Layer }) {
  const { id, marks = [] } = layer;
  return (
    <Folded title="Edges and faces by hand" aside={marks.length > 0 ? countOf(marks.length, 'mark') : null}>
      <Marking key={id} layer={layer} />
    </Folded>
  );
}

const PICK_WORDS: readonly (readonly [Pick, string])[] = [
  ['line', 'edges, a whole line at a time'],
  ['edge', 'single edges'],
  ['face', 'faces'],
];

/** While it is there, clicks on the layer pick. */
function Marking({ layer: { id, marks = [] } }: { layer: Layer }) {
  const { pick, edges, faces, marked, refusal } = useMarking();
  const view = useBuild((state) => state.view);
  useEffect(() => {
    marking.begin(id);
    return marking.end;
  }, [id]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: each build may have other edges
  useEffect(() => {
    void marking.look();
  }, [view]);
  const picked = edges.reduce((sum, { at }) => sum + at.length, 0);
  const joins = faces.flatMap((face) => face.joins);
  return (
    <>
      <Sentence>
        Clicks in the view pick{' '}
        <Choice<Pick> label="Picked by a click" value={pick} options={PICK_WORDS} onChange={marking.choose} />.
        {picked + faces.length === 0 && <span className="text-quiet"> With Shift, one more.</span>}
      </Sentence>
      {picked > 0 && (
        <Picked count={countOf(picked, 'edge')}>
          <MarkButton is="hard">Make hard</MarkButton>
          <MarkButton is="soft">Make soft</MarkButton>
          <MarkButton is={null}>As the shading says</MarkButton>
        </Picked>
      )}
      {faces.length > 0 && (
        <Picked count={countOf(faces.length, 'face')}>
          <TextButton onClick={() => void marking.join()}>Join</TextButton>
          {joins.length > 0 && <TextButton onClick={() => marking.mark(null, joins)}>Take apart</TextButton>}
        </Picked>
      )}
      {refusal && <Note tone="ember">{refusal}</Note>}
      {marked && marks.length > 0 && <Kept marked={marked} />}
      {marked && marked.lost.length > 0 && (
        <Note tone="ember">
          {countOf(marked.lost.length, 'mark')} {marked.lost.length === 1 ? 'has' : 'have'} no such edge on this mesh.{' '}
          <TextButton onClick={() => marking.mark(null, marked.lost)}>Forget</TextButton>
        </Note>
      )}
    </>
  );
}

/** What is picked, and what can be done with it. */
function Picked({ count, children }: { count: string; children: ReactNode }) {
  return (
    <p className="my-2 flex flex-wrap gap-x-4 border-tide border-l-2 pl-3">
      <span>{count}:</span>
      {children}
    </p>
  );
}

function MarkButton({ is, children }: { is: MarkKind | null; children: string }) {
  return <TextButton onClick={() => marking.mark(is)}>{children}</TextButton>;
}

/** What is marked, as far as the mesh has it. */
function Kept({ marked: { hard, soft, joined } }: { marked: Marked }) {
  // Two ends of three coordinates each.
  const [hards, softs] = [hard.length / 6, soft.length / 6];
  const words = [
    hards > 0 && `${countOf(hards, 'edge')} hard`,
    softs > 0 && `${countOf(softs, 'edge')} soft`,
    joined > 0 && `${countOf(joined, 'edge')} gone between joined faces`,
  ].filter((each) => each !== false);
  return words.length > 0 ? <p className="text-quiet">By hand: {words.join(', ')}.</p> : null;
}
