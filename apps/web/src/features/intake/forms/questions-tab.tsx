import { useQuery } from '@tanstack/react-query';
import type { FormShape } from '@zesting/contract';
import { FIELD_KINDS, ITEMS_LIMIT, factsNotAsked, type FormItem } from '@zesting/core';
import { Plus } from 'lucide-react';
import { toast } from 'sonner';
import { routesQuery } from '../../../api/production';
import { useOpened } from '../../../lib/use-opened';
import { Button, buttonClass } from '../../../ui/button';
import { Menu, MenuItem } from '../../../ui/menu';
import { dependsOn, freeKey, moved, newItem } from './items';
import { QuestionFields } from './question-fields';
import { QuestionList } from './question-list';
import { TakeItemDialog } from './take-item-dialog';
import type { FormDraft } from './use-form-draft';
import { FACT_WORDS, KIND_WORDS } from './words';

interface QuestionsProps {
  readonly form: FormShape;
  readonly draft: FormDraft;
  readonly chosen: string | null;
  readonly onChoose: (key: string | null) => void;
}

/** The questions, sections and fixed words of a form, in their order. */
export function QuestionsTab({ form, draft, chosen, onChoose }: QuestionsProps) {
  const { content, change, changeItem, faults } = draft;
  const { items } = content;
  const { opened, open, close } = useOpened();
  const put = (next: readonly FormItem[]) => change({ items: next });
  const insert = (item: FormItem) => {
    const at = items.findIndex(({ key }) => key === chosen);
    put(at < 0 ? [...items, item] : [...items.slice(0, at + 1), item, ...items.slice(at + 1)]);
    onChoose(item.key);
  };
  const copy = (key: string) => {
    const item = items.find((other) => other.key === key);
    if (item) insert({ ...item, key: freeKey(item.key, items) });
  };
  const remove = (key: string) => {
    const { items: others, rules } = dependsOn(key, content);
    const count = others.length + rules.length;
    put(items.filter((item) => item.key !== key));
    if (chosen === key) onChoose(null);
    toast(
      count > 0 ? `Taken out. ${count === 1 ? 'One condition asks' : `${count} conditions ask`} about it and must be mended.` : 'Taken out',
      {
        action: { label: 'Undo', onClick: () => draft.undo?.() },
      },
    );
  };
  return (
    <>
      <NotAsked form={form} draft={draft} />
      <QuestionList
        items={items}
        faults={faults}
        chosen={chosen}
        disabled={!form.canEdit}
        onChoose={onChoose}
        onMove={(from, to) => put(moved(items, from, to))}
        onCopy={copy}
        onRemove={remove}
      >
        {(item) => (
          <fieldset disabled={!form.canEdit}>
            <QuestionFields
              item={item}
              items={items}
              faults={faults}
              onChange={(part, of) => changeItem(item.key, part, of ? `${item.key}:${of}` : null)}
            />
          </fieldset>
        )}
      </QuestionList>
      {form.canEdit && items.length < ITEMS_LIMIT && (
        <div className="flex flex-wrap gap-2 mt-3">
          <Menu
            label="Add a question"
            className={buttonClass('plain')}
            trigger={
              <>
                <Plus size={15} aria-hidden /> Add a question
              </>
            }
          >
            {FIELD_KINDS.map((kind) => (
              <MenuItem key={kind} onSelect={() => insert(newItem(kind, items))}>
                {KIND_WORDS[kind]}
              </MenuItem>
            ))}
          </Menu>
          <Button onClick={() => insert(newItem('section', items))}>Add a section</Button>
          <Button onClick={() => insert(newItem('text', items))}>Add fixed text</Button>
          <Button look="quiet" onClick={() => open('take')}>
            From another form…
          </Button>
        </div>
      )}
      {opened === 'take' && <TakeItemDialog formId={form.id} items={items} onTake={insert} onClose={close} />}
    </>
  );
}

/** What the brief of the route's format needs and the form does not ask for. */
function NotAsked({ form, draft }: { form: FormShape; draft: FormDraft }) {
  const { data: routes } = useQuery(routesQuery);
  const { content } = draft;
  const route = routes?.find(({ id }) => id === content.routeId);
  const format = form.formats.find(({ formatId }) => formatId === route?.formatId);
  const missing = format ? factsNotAsked(format.needs, content.items) : [];
  if (!format || missing.length === 0) return null;
  return (
    <p className="card border-l-4 border-l-rind px-3 py-2 mb-3">
      The brief of {format.name} needs what this form does not ask for:{' '}
      <strong>{missing.map((fact) => FACT_WORDS[fact]).join(', ')}</strong>. Say at a question what it tells the makers, or add one.
    </p>
  );
}
