// ExportPanel.tsx — which file, which parts; and the file read back, set beside what was built.
import { Check, Download, X } from 'lucide-react';
import { useState } from 'react';
import useSWR from 'swr';
import { type BakeWishes, type Curves, FORMATS, type FormatId, factsOf, type JobReply } from '../../../core/index.ts';
import { Choice } from '../../controls/Choice.tsx';
import { Note, Panel, Sentence } from '../../controls/Panel.tsx';
import { formatBytes, formatNumber } from '../../format.ts';
import { api, exportUrl } from '../../requests/api.ts';
import { rememberExport, useExport } from '../../store/export.ts';
import { saveNow, useDocument, useProject } from '../../store/project.ts';
import { OpenNote } from '../proof/OpenNote.tsx';
import { BakeSentence } from './BakeSentence.tsx';

export function ExportPanel() {
  const { layers, unit, tolerance } = useDocument();
  const id = useProject((state) => state.id)!;
  const revision = useProject((state) => state.revision);
  const isSaved = useProject((state) => state.save === 'saved');
  const last = useExport();
  const [format, setFormat] = useState<FormatId>('glb');
  const [lengths, setLengths] = useState<'metres' | 'units'>('metres');
  const [curves, setCurves] = useState<Curves>('splines');
  const [bake, setBake] = useState<BakeWishes | null>(null);
  const [left, setLeft] = useState<readonly string[]>([]);
  const [error, setError] = useState<string | null>(null);
  const chosenFormat = factsOf(format);
  const isMetric = chosenFormat.of === 'meshes' && chosenFormat.isMetric;
  const keepsPictures = chosenFormat.keeps.includes('pictures');
  const shown = layers.filter((layer) => layer.shown);
  const chosen = shown.filter((layer) => !left.includes(layer.id));
  const jobId = last.project === id ? last.jobId : null;
  const { data: job, mutate } = useSWR(jobId ? ['job', jobId] : null, () => api.job(jobId!), {
    refreshInterval: (reply) => (reply && (reply.state === 'waiting' || reply.state === 'running') ? 250 : 0),
    revalidateOnFocus: false,
  });

  const isRunning = job?.state === 'running' || job?.state === 'waiting';

  const make = async () => {
    setError(null);
    try {
      await saveNow();
      const saved = useProject.getState();
      if (saved.save !== 'saved')
        throw new Error(saved.saveError ?? 'The project must be saved before it can be exported.');
      const baked = bake && keepsPictures ? { bake } : {};
      const layers = chosen.map((layer) => layer.id);
      const wanted = { format, lengths, curves, ...baked, revision: saved.revision, layers };
      const started = await api.startExport(id, wanted);
      rememberExport(id, started.id, saved.revision);
      await mutate(started, { revalidate: true });
    } catch (failure) {
      setError(failure instanceof Error ? failure.message : String(failure));
    }
  };

  return (
    <>
      <Panel title="Export">
        <fieldset>
          <legend className="sr-only">Format</legend>
          {FORMATS.map(({ id: value, name, about }) => (
            <label
              key={value}
              className={`-mt-px flex cursor-pointer items-baseline gap-2.5 border px-3 py-1.5 ${format === value ? 'relative border-tide bg-wash' : 'border-rule'}`}
            >
              <input
                type="radio"
                name="format"
                className="accent-tide"
                checked={format === value}
                onChange={() => setFormat(value)}
              />
              <span>
                {name}
                <span className="text-quiet text-sm"> — {about}</span>
              </span>
            </label>
          ))}
        </fieldset>
        {isMetric && (
          <Sentence>
            It opens{' '}
            <Choice
              label="Lengths"
              value={lengths}
              options={[
                ['metres', 'at its real size'],
                ['units', `with 1 ${unit} as 1 metre`],
              ]}
              onChange={setLengths}
            />
            .
          </Sentence>
        )}
        {keepsPictures && <BakeSentence bake={bake} onChange={setBake} />}
        {chosenFormat.of === 'outlines' && 'hasCurveChoice' in chosenFormat && (
          <Sentence>
            Curves leave{' '}
            <Choice<Curves>
              label="Curves"
              value={curves}
              options={[
                ['splines', 'as splines'],
                ['arcs', 'as arcs'],
                ['lines', 'as lines'],
              ]}
              onChange={setCurves}
            />
            {curves === 'splines' ? ', exactly' : `, within ${formatNumber(tolerance)} ${unit}`}.
          </Sentence>
        )}
        <fieldset className="mt-2 grid max-h-40 grid-cols-2 gap-x-3 overflow-y-auto">
          <legend className="text-quiet text-sm">Parts</legend>
          {shown.map(({ id: layer, name, material }) => (
            <label key={layer} className="flex min-w-0 items-center gap-2 py-0.5">
              <input
                type="checkbox"
                className="accent-tide"
                checked={!left.includes(layer)}
                onChange={() =>
                  setLeft(left.includes(layer) ? left.filter((other) => other !== layer) : [...left, layer])
                }
              />
              <span
                aria-hidden
                className="size-3 shrink-0 border border-rule"
                style={{ background: material.colour }}
              />
              <span className="truncate">{name}</span>
            </label>
          ))}
        </fieldset>
        {chosenFormat.of === 'meshes' && (
          <OpenNote
            among={chosen}
            then={format === 'stl' ? 'a printer cannot tell its inside from its outside' : 'it leaves as a shell'}
          />
        )}
        <button
          type="button"
          className="mt-3 w-full rounded-edge bg-tide px-3 py-2 text-sheet"
          disabled={chosen.length === 0}
          // Not disabled while it runs, which would take the focus from it.
          aria-disabled={isRunning}
          onClick={() => !isRunning && void make()}
        >
          Make the {format.toUpperCase()} file
        </button>
        {chosen.length === 0 && <Note>Switch at least one part on.</Note>}
        {error && <Note tone="ember">{error}</Note>}
      </Panel>
      {job && <JobPanel job={job} isBehind={!isSaved || last.revision !== revision} onChange={() => void mutate()} />}
    </>
  );
}

function JobPanel({ job, isBehind, onChange }: { job: JobReply; isBehind: boolean; onChange: () => void }) {
  const { report } = job;
  if (job.state === 'waiting' || job.state === 'running') {
    return (
      <Panel title="Making the file">
        <progress className="w-full accent-tide" value={job.progress} aria-label="Progress" />
        <button type="button" className="text-tide underline" onClick={() => void api.cancelJob(job.id).then(onChange)}>
          Stop
        </button>
      </Panel>
    );
  }
  if (!report) {
    return (
      <Panel title={job.state === 'cancelled' ? 'Stopped' : 'Not made'}>
        {job.error && <Note tone="ember">{job.error.message}</Note>}
        <button type="button" className="text-tide underline" onClick={() => void api.retryJob(job.id).then(onChange)}>
          Try again
        </button>
      </Panel>
    );
  }
  return (
    <Panel title="Read back">
      <p className="sr-only" role="status">
        {report.ok ? 'The file holds what was built.' : 'The file differs from what was built.'}
      </p>
      {isBehind && <Note>The project has changed since this file was made.</Note>}
      <a
        href={exportUrl(job.id)}
        download={report.fileName}
        className="mb-3 flex items-center justify-center gap-2 rounded-edge border border-tide px-3 py-2 text-tide"
      >
        <Download size={16} aria-hidden />
        <span className="min-w-0 truncate">{report.fileName}</span>
        <span className="figure shrink-0">{formatBytes(report.bytes)}</span>
      </a>
      <table className="w-full text-sm" data-read-back={report.ok}>
        <thead className="text-left text-quiet">
          <tr>
            <th className="font-normal">figure</th>
            <th className="font-normal">built</th>
            <th className="font-normal">in the file</th>
            <th className="font-normal">
              <span className="sr-only">compared</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {report.rows.map(({ what, built, read, same }) => (
            <tr key={what} className="border-rule border-t align-top">
              <td className="whitespace-nowrap py-1 pr-2 text-quiet">{what}</td>
              <td className="figure break-words py-1 pr-2">{built}</td>
              <td className="figure break-words py-1 pr-2">{read}</td>
              <td className="py-1">
                {same ? (
                  <Check size={15} className="text-tide" aria-label="the same" />
                ) : (
                  <X size={15} className="text-ember" aria-label="not the same" />
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Panel>
  );
}
