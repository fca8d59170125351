import type { AbleDoerShape, ProposedFor } from '@zesting/contract';
import { moneyWords } from '../../../lib/money';

const WHY: Record<ProposedFor, string> = { usual: 'usually does this', own: 'works for them', skill: 'has the skill' };

interface DoerChoiceProps {
  readonly label: string;
  readonly people: readonly AbleDoerShape[];
  readonly currency: string;
  /** empty: nobody */
  readonly value: string;
  /** nobody may be chosen as well */
  readonly orNobody?: boolean;
  readonly onChange: (personId: string) => void;
}

/** Who takes a step: why each could, and what their hours of it cost where that is told. */
export function DoerChoice({ label, people, currency, value, orNobody = false, onChange }: DoerChoiceProps) {
  return (
    <select
      aria-label={label}
      className="field w-full max-w-84 min-w-0 py-0.5"
      value={value}
      onChange={({ target }) => onChange(target.value)}
    >
      {orNobody && <option value="">Nobody</option>}
      {people.map(({ personId, name, why, cost }) => (
        <option key={personId} value={personId}>
          {[name, WHY[why], ...(cost === null ? [] : [moneyWords(cost, currency)])].join(', ')}
        </option>
      ))}
    </select>
  );
}
