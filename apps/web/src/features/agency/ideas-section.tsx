import type { AgencySettingsShape, IdeaWeightsBody } from '@zesting/contract';
import { EditedSection } from '../../ui/edited';
import { NumberField } from '../../ui/setup-fields';
import { useAgencySection } from './use-agency-section';

const MARKS: readonly (readonly [keyof IdeaWeightsBody, string, string])[] = [
  ['merit', 'Merit', 'how good it would be'],
  ['ease', 'Ease', 'how little work it is'],
  ['chance', 'Chance', 'how likely it is to work'],
];

/** How much each mark of an idea counts, in the order of the shelf and in what is proposed. */
export function IdeasSection({ agency }: { agency: AgencySettingsShape }) {
  const { edited, locked } = useAgencySection(
    'idea-weights',
    agency,
    ({ ideaWeights }) => ({ ideaWeights }),
    (body) => body,
  );
  const { ideaWeights } = edited.draft;
  const all = ideaWeights.merit + ideaWeights.ease + ideaWeights.chance;
  return (
    <EditedSection
      title="Weighing ideas"
      note="Ideas are marked from 1 to 5; the weights say how much each mark counts beside the others, in the order of the shelf and in what is proposed for a slot."
      edited={edited}
      readOnly={locked}
    >
      <div className="grid sm:grid-cols-3 gap-x-4 max-w-3xl">
        {MARKS.map(([key, name, what]) => (
          <NumberField
            key={key}
            label={name}
            unit={`${what}${all > 0 ? `: ${Math.round((100 * ideaWeights[key]) / all)} percent` : ''}`}
            most={9}
            value={ideaWeights[key]}
            disabled={locked}
            onChange={(weight) => edited.change({ ideaWeights: { ...ideaWeights, [key]: weight } })}
          />
        ))}
      </div>
      {all === 0 && <p className="text-rind text-[13px]">With no weight at all, every idea is worth the same.</p>}
    </EditedSection>
  );
}
