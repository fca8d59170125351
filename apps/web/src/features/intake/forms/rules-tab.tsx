import { useQuery } from '@tanstack/react-query';
import type { FormShape } from '@zesting/contract';
import { ruleWords, sortByRules, type Answers, type FormContent, type RuleNames, type SortingRule, type Words } from '@zesting/core';
import { ArrowDown, ArrowUp, Pencil, Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { triedQuery } from '../../../api/forms';
import { peopleQuery } from '../../../api/people';
import { routesQuery } from '../../../api/production';
import { useClients } from '../../../lib/queries';
import { Button, IconButton } from '../../../ui/button';
import { Field } from '../../../ui/field';
import { ConditionEditor, firstTest } from './condition-editor';
import { moved } from './items';
import type { FormDraft } from './use-form-draft';
import { faultWords } from './words';

interface RulesProps {
  readonly form: FormShape;
  readonly draft: FormDraft;
  /** what stands in the form beside */
  readonly sample: Answers;
}

/** What a form's rules can set, with names for it. Pillars and channels only where the form is for one client. */
function useTakes(form: FormShape) {
  const { clientOf } = useClients();
  const { data: routes } = useQuery(routesQuery);
  const { data: people } = useQuery(peopleQuery);
  const client = form.clientIds.length === 1 ? clientOf(form.clientIds[0] ?? '') : undefined;
  const owners = people?.filter(({ active, role }) => active && (role === 'lead' || role === 'manager')) ?? [];
  const nameIn = (list: readonly { readonly id: string; readonly name: string }[] | undefined) => (id: string) =>
    list?.find((one) => one.id === id)?.name ?? 'something that is not there';
  const names: RuleNames = {
    route: nameIn(routes),
    pillar: nameIn(client?.pillars),
    channel: nameIn(client?.channels),
    person: nameIn(owners),
  };
  return {
    routes: routes ?? [],
    owners,
    client,
    names,
    routeOf: (formatId: string) => routes?.find((route) => route.formatId === formatId)?.id,
  };
}

/** Sorting rules as sentences, first match first; each is tried on what stands in the form beside and on what came last. */
export function RulesTab({ form, draft, sample }: RulesProps) {
  const [open, setOpen] = useState<number | null>(null);
  const takes = useTakes(form);
  const { content, change } = draft;
  const { rules, items } = content;
  const put = (next: readonly SortingRule[], of: string | null = null) => change({ rules: next }, of);
  const sorted = sortByRules(rules, items, sample, takes.routeOf);
  const add = () => {
    const when = firstTest(items);
    put([...rules, { ...(when ? { when } : {}), takes: { ownerId: 'lead_person' } }]);
    setOpen(rules.length);
  };
  return (
    <>
      <p className="text-muted mb-2">The first rule that fits sets what a request takes; you still decide when you accept it.</p>
      <ol aria-label="Sorting rules" className="grid gap-2">
        {rules.map((rule, at) => (
          <li key={at} className={`card p-3 ${sorted.rule === at ? 'border-l-4 border-l-pine' : ''}`}>
            <div className="flex items-start gap-2">
              <p className="flex-1 min-w-0">
                <Sentence words={ruleWords(rule, items, takes.names)} />
                {sorted.rule === at && (
                  <span className="block text-pine text-[13px] font-medium">Fits what stands in the form beside.</span>
                )}
              </p>
              {form.canEdit && (
                <span className="flex shrink-0">
                  <IconButton label={`Change rule ${at + 1}`} aria-expanded={open === at} onClick={() => setOpen(open === at ? null : at)}>
                    <Pencil size={15} aria-hidden />
                  </IconButton>
                  <IconButton label={`Move rule ${at + 1} up`} disabled={at === 0} onClick={() => put(moved(rules, at, at - 1))}>
                    <ArrowUp size={15} aria-hidden />
                  </IconButton>
                  <IconButton
                    label={`Move rule ${at + 1} down`}
                    disabled={at === rules.length - 1}
                    onClick={() => put(moved(rules, at, at + 1))}
                  >
                    <ArrowDown size={15} aria-hidden />
                  </IconButton>
                  <IconButton label={`Take out rule ${at + 1}`} onClick={() => put(rules.filter((_, index) => index !== at))}>
                    <Trash2 size={15} aria-hidden />
                  </IconButton>
                </span>
              )}
            </div>
            {draft.faults
              .filter((fault) => fault.rule === at)
              .map((fault, index) => (
                <p key={index} className="text-rhubarb font-medium text-[13px]">
                  {faultWords(fault, items)}
                </p>
              ))}
            {open === at && (
              <RuleFields
                rule={rule}
                content={content}
                takes={takes}
                onChange={(next) =>
                  put(
                    rules.map((old, index) => (index === at ? next : old)),
                    `rule:${at}`,
                  )
                }
              />
            )}
          </li>
        ))}
      </ol>
      {rules.length === 0 && (
        <p className="text-muted">No rule yet: every request takes the route of the form and goes to the client’s lead person.</p>
      )}
      {form.canEdit && (
        <Button className="mt-2" onClick={add}>
          <Plus size={15} aria-hidden /> Add a rule
        </Button>
      )}
      {sorted.rule === null && rules.length > 0 && <p className="text-muted mt-2">No rule fits what stands in the form beside.</p>}
      <Tried form={form} content={content} takes={takes} />
    </>
  );
}

const Sentence = ({ words }: { words: readonly Words[] }) =>
  words.map(({ text, isName }, at) =>
    isName ? (
      <em key={at} className="not-italic font-semibold">
        {text}
      </em>
    ) : (
      <span key={at}>{text}</span>
    ),
  );

type Takes = ReturnType<typeof useTakes>;

interface RuleFieldsProps {
  readonly rule: SortingRule;
  readonly content: FormContent;
  readonly takes: Takes;
  readonly onChange: (rule: SortingRule) => void;
}

function RuleFields({ rule, content, takes, onChange }: RuleFieldsProps) {
  const { when } = rule;
  const set = (part: { [Key in keyof SortingRule['takes']]?: SortingRule['takes'][Key] | undefined }) => {
    const next = Object.fromEntries(Object.entries({ ...rule.takes, ...part }).filter(([, value]) => value !== undefined));
    onChange({ ...rule, takes: next });
  };
  const withWhen = (next: SortingRule['when']) => {
    const { when: _, ...rest } = rule;
    onChange(next === undefined ? rest : { ...rest, when: next });
  };
  const select = (
    label: string,
    value: string | undefined,
    options: readonly (readonly [string, string])[],
    put: (value: string | undefined) => void,
  ) => (
    <Field label={label}>
      {(control) => (
        <select {...control} className="field" value={value ?? ''} onChange={(event) => put(event.target.value || undefined)}>
          <option value="">As it comes</option>
          {options.map(([id, name]) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
  const named = (list: readonly { readonly id: string; readonly name: string }[]) => list.map(({ id, name }) => [id, name] as const);
  return (
    <div className="border-t border-line mt-2 pt-3">
      {when === undefined ? (
        <Button look="quiet" onClick={() => withWhen(firstTest(content.items))}>
          <Plus size={14} aria-hidden /> Only where a condition holds
        </Button>
      ) : (
        <ConditionEditor label="When" condition={when} items={content.items} onChange={withWhen} />
      )}
      <div className="grid gap-x-3 sm:grid-cols-2 mt-3">
        {select('It takes the route', rule.takes.routeId, named(takes.routes), (routeId) => set({ routeId }))}
        {select('It goes to', rule.takes.ownerId, [['lead_person', 'The lead person'], ...named(takes.owners)], (ownerId) =>
          set({ ownerId }),
        )}
        {takes.client && select('It counts to', rule.takes.pillarId, named(takes.client.pillars), (pillarId) => set({ pillarId }))}
      </div>
      {takes.client && (
        <fieldset>
          <legend className="font-medium">It is meant for</legend>
          <div className="flex flex-wrap gap-x-5">
            {takes.client.channels.map(({ id, name }) => (
              <label key={id} className="flex items-center gap-2 min-h-8">
                <input
                  type="checkbox"
                  className="size-4 accent-pine"
                  checked={rule.takes.channelIds?.includes(id) ?? false}
                  onChange={(event) => {
                    const had = rule.takes.channelIds ?? [];
                    const next = event.target.checked ? [...had, id] : had.filter((other) => other !== id);
                    set({ channelIds: next.length > 0 ? next : undefined });
                  }}
                />
                {name}
              </label>
            ))}
          </div>
        </fieldset>
      )}
    </div>
  );
}

/** The requests that came last, and what the rules as they stand would say to each. */
function Tried({ form, content, takes }: { form: FormShape; content: FormContent; takes: Takes }) {
  const { data: requests } = useQuery({ ...triedQuery(form.id), enabled: form.canEdit });
  if (!requests || requests.length === 0 || content.rules.length === 0) return null;
  return (
    <section aria-label="Tried on the last requests" className="mt-5">
      <h2 className="font-semibold mb-1">Tried on the last {requests.length === 1 ? 'request' : `${requests.length} requests`}</h2>
      <ul className="card divide-y divide-line">
        {requests.map(({ id, number, title, items, answers }) => {
          const { rule } = sortByRules(content.rules, items, answers, takes.routeOf);
          return (
            <li key={id} className="flex items-center gap-3 px-3 min-h-8 text-[13px]">
              <span className="text-muted tabular">{number}</span>
              <span className="flex-1 min-w-0 truncate">{title}</span>
              <span className={rule === null ? 'text-muted' : 'font-medium'}>{rule === null ? 'no rule' : `rule ${rule + 1}`}</span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
