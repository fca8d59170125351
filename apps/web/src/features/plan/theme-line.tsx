import type { PlanMonthShape, ThemeBody } from '@zesting/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { dayWords, monthWords } from '../../lib/format';
import { useWrite } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { Button } from '../../ui/button';
import { CycleDialog } from './cycle-dialog';

/** The theme of a month, where it comes from, and those of its weeks. */
export function ThemeLine({ clientId, month, plan }: { clientId: string; month: string; plan: PlanMonthShape }) {
  const { opened, open, close } = useOpened();
  const ofMonth = plan.themes.find(({ period }) => period === 'month');
  const weeks = plan.themes.filter(({ period }) => period === 'week');
  const set = useWrite((body: ThemeBody) => call(`/clients/${clientId}/themes`, { method: 'PUT', body }));
  return (
    <section aria-label="Theme" className="card p-3">
      <div className="flex items-baseline gap-2 mb-1">
        <h2 className="text-base flex-1">Theme of {monthWords(month)}</h2>
        <button type="button" className="text-pine underline min-h-6 text-[13px]" onClick={() => open('cycle')}>
          {plan.cycle ? `Cycle of ${plan.cycle.names.length}` : 'A cycle…'}
        </button>
      </div>
      <ThemeField
        key={`${month} ${ofMonth?.name ?? ''}`}
        label={`Theme of ${monthWords(month)}`}
        name={ofMonth?.from === 'month' ? ofMonth.name : ''}
        placeholder={ofMonth?.from === 'cycle' ? ofMonth.name : 'None yet'}
        busy={set.isPending}
        onSet={(name) =>
          set.mutate(
            { period: 'month', on: `${month}-01`, name },
            { onSuccess: () => toast(name ? 'The theme is set' : 'The theme is taken away') },
          )
        }
      />
      {ofMonth?.from === 'cycle' && (
        <p className="text-muted text-[12px] mt-1">From the cycle; type another to have it differ this once.</p>
      )}
      {weeks.length > 0 && (
        <ul className="text-[13px] mt-2 grid gap-0.5">
          {weeks.map(({ startOn, name }) => (
            <li key={startOn} className="flex items-center gap-2">
              <span className="text-muted whitespace-nowrap">Week of {dayWords(startOn)}</span>
              <span className="flex-1 truncate">{name}</span>
              <button
                type="button"
                className="text-pine underline min-h-6"
                aria-label={`Take the theme of the week of ${dayWords(startOn)} away`}
                onClick={() => set.mutate({ period: 'week', on: startOn, name: '' })}
              >
                Away
              </button>
            </li>
          ))}
        </ul>
      )}
      <WeekTheme plan={plan} onSet={(on, name) => set.mutate({ period: 'week', on, name })} />
      {opened === 'cycle' && <CycleDialog clientId={clientId} month={month} cycle={plan.cycle} onClose={close} />}
    </section>
  );
}

interface ThemeFieldProps {
  readonly label: string;
  readonly name: string;
  readonly placeholder: string;
  readonly busy: boolean;
  readonly onSet: (name: string) => void;
}

function ThemeField({ label, name, placeholder, busy, onSet }: ThemeFieldProps) {
  const [typed, setTyped] = useState(name);
  return (
    <form
      className="flex gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onSet(typed.trim());
      }}
    >
      <input
        className="field"
        aria-label={label}
        maxLength={80}
        placeholder={placeholder}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
      />
      {typed.trim() !== name && (
        <Button type="submit" disabled={busy}>
          Set
        </Button>
      )}
    </form>
  );
}

/** Gives one week of the month a theme of its own. */
function WeekTheme({ plan, onSet }: { plan: PlanMonthShape; onSet: (on: string, name: string) => void }) {
  const [isOpen, setOpen] = useState(false);
  const days = [...new Set(plan.slots.map(({ on }) => on))];
  const [on, setOn] = useState(days[0] ?? '');
  const [name, setName] = useState('');
  if (days.length === 0) return null;
  if (!isOpen)
    return (
      <button type="button" className="text-pine underline min-h-6 text-[13px] mt-1" onClick={() => setOpen(true)}>
        A week with a theme of its own…
      </button>
    );
  return (
    <form
      className="grid grid-cols-[8.5rem_minmax(0,1fr)_auto] gap-2 mt-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim() === '') return;
        onSet(on, name.trim());
        setOpen(false);
        setName('');
      }}
    >
      <select className="field" aria-label="The week of" value={on} onChange={(event) => setOn(event.target.value)}>
        {days.map((day) => (
          <option key={day} value={day}>
            {dayWords(day)}
          </option>
        ))}
      </select>
      <input className="field" aria-label="Its theme" maxLength={80} value={name} onChange={(event) => setName(event.target.value)} />
      <Button type="submit">Set</Button>
    </form>
  );
}
