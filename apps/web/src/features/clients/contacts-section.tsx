import type { ClientPageShape, ContactBody } from '@zesting/contract';
import { EditedSection } from '../../ui/edited';
import { Field } from '../../ui/field';
import { ListEditor } from '../../ui/list-editor';
import { useClientSection } from './use-client-section';

const RIGHTS = [
  { key: 'canAsk', words: 'may ask' },
  { key: 'canView', words: 'may look' },
  { key: 'canSignOff', words: 'signs off' },
] as const;

/** How much what somebody asks for counts, from 1 on. */
const WEIGHTS = ['counts as usual', 'counts more', 'counts most'];

/** The client's people and what each may do. */
export function ContactsSection({ client }: { client: ClientPageShape }) {
  const edited = useClientSection(
    'contacts',
    client,
    ({ contacts }) => ({ contacts }),
    (body) => body,
  );
  return (
    <EditedSection
      title="Contacts"
      note="Who signs off is asked in this order, where the policy asks in turn. A contact taken out can no longer open the room; what they decided stays. What counts more is decided first, of requests that must be begun on the same day."
      edited={edited}
    >
      <ListEditor<ContactBody>
        label="Contacts"
        ordered
        items={edited.draft.contacts}
        archived={client.archived.contacts}
        onChange={(contacts) => edited.change({ contacts })}
        nameOf={(contact) => contact.name}
        make={() => ({ name: '', email: '', canAsk: true, canView: true, canSignOff: false, weight: 1 })}
        addWords="Add a contact"
        empty="Nobody yet. Somebody must sign off before a piece can go to the client."
      >
        {(contact, put) => (
          <div className="grid md:grid-cols-[minmax(0,1fr)_minmax(0,1.2fr)_auto_auto] gap-x-4 items-start">
            <Field label="Name">
              {(control) => (
                <input {...control} className="field" value={contact.name} onChange={(event) => put({ name: event.target.value })} />
              )}
            </Field>
            <Field label="E-mail">
              {(control) => (
                <input
                  {...control}
                  type="email"
                  className="field"
                  value={contact.email}
                  onChange={(event) => put({ email: event.target.value })}
                />
              )}
            </Field>
            <fieldset>
              <legend className="font-medium mb-1">Rights</legend>
              {RIGHTS.map(({ key, words }) => (
                <label key={key} className="inline-flex items-center gap-2 min-h-8 mr-4">
                  <input
                    type="checkbox"
                    className="size-4 accent-pine"
                    checked={contact[key]}
                    onChange={(event) => put({ [key]: event.target.checked })}
                  />
                  {words}
                </label>
              ))}
            </fieldset>
            <Field label="What they ask for">
              {(control) => (
                <select
                  {...control}
                  className="field"
                  value={contact.weight}
                  onChange={(event) => put({ weight: Number(event.target.value) })}
                >
                  {WEIGHTS.map((words, index) => (
                    <option key={words} value={index + 1}>
                      {words}
                    </option>
                  ))}
                </select>
              )}
            </Field>
          </div>
        )}
      </ListEditor>
    </EditedSection>
  );
}
