import type { AgreedAmountBody, AgreedAmountsShape } from '@zesting/contract';
import { firstOfMonth, getDay, parseAmount } from '@zesting/core';
import { useState } from 'react';
import { dayWords, monthWords } from '../lib/format';
import { moneyFigures, moneyWords } from '../lib/money';
import { DayField } from './day-field';
import type { Edited } from './edited';
import { EditedSection } from './edited';
import { Field } from './field';
import { ListEditor } from './list-editor';

interface AgreedAmountsProps {
  readonly title: string;
  readonly note: string;
  /** what one of them is called: "Fee of a month" */
  readonly amountWords: string;
  readonly currency: string;
  readonly todayOn: string;
  readonly edited: Edited<Pick<AgreedAmountsShape, 'agreed'>>;
  readonly readOnly?: boolean;
  /** each holds from the first of a month */
  readonly byMonth?: boolean;
}

/** What is agreed from some days on, one below the other. */
export function AgreedAmounts({
  title,
  note,
  amountWords,
  currency,
  todayOn,
  edited,
  readOnly = false,
  byMonth = false,
}: AgreedAmountsProps) {
  const since = (on: string) => (byMonth ? monthWords(on.slice(0, 7)) : dayWords(on));
  const { agreed } = edited.draft;
  if (readOnly)
    return (
      <section aria-label={title} className="card p-4">
        <h2 className="text-lg mb-1">{title}</h2>
        {agreed.length === 0 ? (
          <p className="text-muted">Nothing is agreed yet.</p>
        ) : (
          <ul>
            {agreed.map(({ fromOn, amount }) => (
              <li key={fromOn} className="flex gap-3 py-1">
                <span className="flex-1">From {since(fromOn)}</span>
                <span className="tabular">{amount === null ? 'not agreed' : moneyWords(amount, currency)}</span>
              </li>
            ))}
          </ul>
        )}
      </section>
    );
  const snap = (on: string): string => (byMonth && on !== '' ? firstOfMonth(on.slice(0, 7)) : on);
  return (
    <EditedSection title={title} note={note} edited={edited}>
      <ListEditor<AgreedAmountBody>
        label={title}
        items={agreed}
        onChange={(next) => edited.change({ agreed: next })}
        nameOf={({ fromOn }) => `what holds from ${since(fromOn)}`}
        make={() => ({ fromOn: snap(todayOn), amount: agreed.at(-1)?.amount ?? null })}
        addWords={agreed.length === 0 ? 'Agree on it' : 'From another day on'}
        empty="Nothing is agreed yet."
      >
        {({ fromOn, amount }, change) => (
          <div className="grid sm:grid-cols-[12rem_14rem] gap-x-4">
            <AmountField label={amountWords} currency={currency} value={amount} onChange={(next) => change({ amount: next })} />
            <DayField
              label="From"
              required
              value={fromOn}
              todayOn={todayOn}
              {...(byMonth && fromOn !== '' ? { help: `From ${since(fromOn)} on` } : {})}
              onChange={(on) => {
                if (on !== '') change({ fromOn: getDay(snap(on)) });
              }}
            />
          </div>
        )}
      </ListEditor>
    </EditedSection>
  );
}

interface AmountFieldProps {
  readonly label: string;
  readonly currency: string;
  /** in the smallest unit; null: none */
  readonly value: number | null;
  readonly onChange: (amount: number | null) => void;
}

/** An amount of money, typed with or without marks of thousands. What cannot be read is said, and leaves what was there. */
export function AmountField({ label, currency, value, onChange }: AmountFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const isUnread = typed !== null && typed.trim() !== '' && parseAmount(typed, currency) === undefined;
  return (
    <Field
      label={`${label} (${currency})`}
      help="Empty: nothing is agreed from then on"
      error={isUnread ? `This is no amount. Try ${moneyFigures(125_050, currency)}.` : undefined}
    >
      {(control) => (
        <input
          {...control}
          className="field tabular w-36"
          inputMode="decimal"
          autoComplete="off"
          value={typed ?? (value === null ? '' : moneyFigures(value, currency))}
          onChange={({ target }) => {
            setTyped(target.value);
            const amount = target.value.trim() === '' ? null : parseAmount(target.value, currency);
            if (amount !== undefined && amount !== value) onChange(amount);
          }}
          onBlur={() => {
            if (!isUnread) setTyped(null);
          }}
        />
      )}
    </Field>
  );
}
