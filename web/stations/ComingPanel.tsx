// ComingPanel.tsx — a station that is not there yet and says so.
import { Panel } from '../controls/Panel.tsx';

export function ComingPanel({ title, text }: { title: string; text: string }) {
  return (
    <Panel title={title} aside={<span className="text-quiet text-sm">coming</span>}>
      <p className="text-quiet">{text}</p>
      <p className="mt-3 text-quiet">What you build now stays in the project and will be ready for it.</p>
    </Panel>
  );
}
