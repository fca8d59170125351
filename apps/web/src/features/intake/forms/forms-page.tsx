import { useInfiniteQuery } from '@tanstack/react-query';
import type { FormatNeedsShape, FormRow } from '@zesting/contract';
import { BRIEF_FACTS } from '@zesting/core';
import { Link, useNavigate } from 'react-router';
import { formsQuery } from '../../../api/forms';
import { call, wordsOf } from '../../../lib/api';
import { count } from '../../../lib/format';
import { useClients, useWrite } from '../../../lib/queries';
import { useOpened } from '../../../lib/use-opened';
import { useSearch } from '../../../lib/use-search';
import { Button } from '../../../ui/button';
import { Choice } from '../../../ui/choice';
import { Empty, Failed, Loading, PageHead } from '../../../ui/page';
import { ClientCode, Tag } from '../../../ui/tags';
import { NewFormDialog } from './new-form-dialog';
import { FACT_WORDS } from './words';

/** All forms, each with its clients, its links and what came by them. */
export function FormsPage() {
  const { query, to } = useClients();
  const { search, put } = useSearch();
  const navigate = useNavigate();
  const { opened, open, close } = useOpened();
  const archived = search.get('archived') === 'yes';
  const forms = useInfiniteQuery(formsQuery(`${query}${archived ? '&archived=yes' : ''}`));
  if (forms.isError) return <Failed message={wordsOf(forms.error)} onRetry={() => void forms.refetch()} />;
  if (!forms.data) return <Loading />;
  const rows = forms.data.pages.flatMap((page) => page.items);
  const { canEdit = false, stock = [] } = forms.data.pages[0] ?? {};
  return (
    <>
      <PageHead title="Forms" note="What clients are asked, and the links by which they ask.">
        <Choice
          label="What is shown"
          value={archived ? 'archived' : 'here'}
          options={[
            ['here', 'In use'],
            ['archived', 'Archived'],
          ]}
          onChange={(value) => put({ archived: value === 'archived' ? 'yes' : null }, { replace: true })}
        />
        {canEdit && (
          <Button look="main" onClick={() => open('new')}>
            New form
          </Button>
        )}
      </PageHead>
      {rows.length === 0 ? (
        <Empty title={archived ? 'No form is archived' : 'No form yet'}>
          {!archived && (canEdit ? 'Begin with one of the starting forms, and change what it asks.' : 'Who has the right to makes them.')}
        </Empty>
      ) : (
        <ul className="card divide-y divide-line">
          {rows.map((row) => (
            <Row key={row.id} row={row} path={to(`/forms/${row.id}`)} />
          ))}
        </ul>
      )}
      {forms.hasNextPage && (
        <Button look="quiet" className="w-full" onClick={() => void forms.fetchNextPage()}>
          Show more
        </Button>
      )}
      {!archived && <BriefNeeds formats={forms.data.pages[0]?.formats ?? []} canEdit={canEdit} />}
      {opened === 'new' && <NewFormDialog stock={stock} onClose={close} onMade={(id) => void navigate(to(`/forms/${id}`))} />}
    </>
  );
}

function Row({ row, path }: { row: FormRow; path: string }) {
  const { clientOf } = useClients();
  const clients = row.clientIds.map(clientOf).filter((client) => client !== undefined);
  return (
    <li>
      <Link
        to={path}
        className="grid grid-cols-[minmax(0,1fr)_auto] sm:grid-cols-[minmax(0,1fr)_minmax(0,14rem)_16rem_10rem] items-center gap-x-4 px-4 min-h-12 no-underline hover:bg-sunk"
      >
        <span className="font-medium truncate">{row.title}</span>
        <span className="flex flex-wrap gap-x-3 max-sm:hidden">
          {clients.length === 0 && <span className="text-muted">for no client yet</span>}
          {clients.slice(0, 4).map(({ id, code, colour, name }) => (
            <ClientCode key={id} code={code} colour={colour} name={name} />
          ))}
          {clients.length > 4 && <span className="text-muted text-[13px]">and {clients.length - 4} more</span>}
        </span>
        <span className="flex gap-1.5 justify-end sm:justify-start">
          {row.isDefault && <Tag>New clients begin with it</Tag>}
          {row.publishedVersion === null ? (
            <Tag tone="lake">Not published</Tag>
          ) : (
            row.hasDraft && <Tag tone="lake">Changes not published</Tag>
          )}
        </span>
        <span className="text-muted text-[13px] text-right max-sm:col-span-2 max-sm:text-left">
          {row.openLinks === 0 ? 'no link' : count(row.openLinks, 'link')} ·{' '}
          {row.requests === 0 ? 'nothing yet' : count(row.requests, 'request')}
        </span>
      </Link>
    </li>
  );
}

/** Which facts the brief of each format needs: a form is told when it does not ask for one of them. */
function BriefNeeds({ formats, canEdit }: { formats: readonly FormatNeedsShape[]; canEdit: boolean }) {
  const put = useWrite(({ formatId, needs }: FormatNeedsShape) => call(`/formats/${formatId}/needs`, { method: 'PUT', body: { needs } }));
  if (formats.length === 0) return null;
  return (
    <details className="card mt-5 p-4">
      <summary className="font-medium min-h-7">What the brief of each format needs</summary>
      <p className="text-muted mb-2">A form whose route makes that format is told when it does not ask for one of these.</p>
      <div className="overflow-x-auto">
        <table className="text-[13px]">
          <thead>
            <tr>
              <th className="text-left font-medium pr-4">Format</th>
              {BRIEF_FACTS.map((fact) => (
                <th key={fact} scope="col" className="font-medium px-2 py-1 align-bottom">
                  {FACT_WORDS[fact]}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {formats.map((format) => (
              <tr key={format.formatId} className="border-t border-line">
                <th scope="row" className="text-left font-medium pr-4">
                  {format.name}
                </th>
                {BRIEF_FACTS.map((fact) => (
                  <td key={fact} className="text-center">
                    <input
                      type="checkbox"
                      className="size-4 accent-pine m-2"
                      aria-label={`${format.name} needs: ${FACT_WORDS[fact]}`}
                      disabled={!canEdit || put.isPending}
                      checked={format.needs.includes(fact)}
                      onChange={(event) =>
                        put.mutate({
                          ...format,
                          needs: BRIEF_FACTS.filter((other) => (other === fact ? event.target.checked : format.needs.includes(other))),
                        })
                      }
                    />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}
