// BuildPanel.tsx — the recipe of what is selected, and where it stands.
import { Note, Panel } from '../../controls/Panel.tsx';
import { TextButton } from '../../controls/TextButton.tsx';
import { chosenThings } from '../../store/placing.ts';
import { useDocument } from '../../store/project.ts';
import { screen, useScreen } from '../../store/screen.ts';
import { vary } from '../../store/vary.ts';
import { PlacementPanel } from './placement/PlacementPanel.tsx';
import { Recipe } from './recipe/Recipe.tsx';
import { ContactSheet } from './vary/ContactSheet.tsx';

export function BuildPanel() {
  const project = useDocument();
  const { layers } = project;
  const selected = useScreen((state) => state.selected);
  const group = useScreen((state) => state.group);
  const chosen = layers.filter((layer) => selected.includes(layer.id));
  const [first, ...others] = chosen;
  if (first) {
    const [thing, ...more] = chosenThings(project, selected, group);
    return (
      <>
        <Recipe layers={[first, ...others]} />
        {thing && <PlacementPanel things={[thing, ...more]} />}
        <ContactSheet />
      </>
    );
  }
  return (
    <Panel title="Recipe">
      {layers.length === 0 ? (
        <p className="text-quiet">There is nothing to build yet. Bring something in at the Source station.</p>
      ) : (
        <>
          <p>Choose a layer in the stack, in its list or in the view to see how it is built.</p>
          <button
            type="button"
            className="mt-3 text-tide underline"
            onClick={() => screen.select(layers.filter((layer) => layer.shown).map((layer) => layer.id))}
          >
            Choose all that are built
          </button>
          <p className="mt-3">
            <TextButton onClick={vary.open}>Contact sheet</TextButton>
          </p>
          <ContactSheet />
          <Note>Drag the top of a bar in the stack to change its depth, or the bar to move it up and down.</Note>
        </>
      )}
    </Panel>
  );
}
