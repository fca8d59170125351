import { useQuery } from '@tanstack/react-query';
import type { KeptFileShape } from '@zesting/contract';
import { KEPT_FILE_KINDS } from '@zesting/core';
import { Plus } from 'lucide-react';
import { useDeferredValue } from 'react';
import { Link } from 'react-router';
import { keptFilesQuery } from '../../api/kept-files';
import { call, wordsOf } from '../../lib/api';
import { count, dayWords } from '../../lib/format';
import { KEPT_WORDS, renewWords } from '../../lib/kept-file-words';
import { useClients, useSession, useWrite } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { useSearch } from '../../lib/use-search';
import { KeptPicture } from '../../parts/kept-picture';
import { ProductionNav } from '../../parts/production-nav';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { FilterSelect } from '../../ui/filter-select';
import { Empty, Failed, Loading, PageHead } from '../../ui/page';
import { ClientCode, Tag } from '../../ui/tags';
import { KeptFileDialog, NewKeptFileDialog } from './kept-file-dialog';
import { LibraryNav } from './library-nav';

const SHOWN = ['all', 'renew', 'away'] as const;
type Shown = (typeof SHOWN)[number];

const KINDS = KEPT_FILE_KINDS.map((id) => ({ id, name: KEPT_WORDS[id].many }));

/** Files that are kept for clients: product pictures that are renewed in time, what pictures are begun from, and others. */
export function FilesPage() {
  const { search, put } = useSearch();
  const { client, clients, query: ofClient } = useClients();
  const { role } = useSession();
  const { opened, open, close } = useOpened();
  const isManager = role === 'lead' || role === 'manager';
  const words = search.get('words') ?? '';
  const kind = KEPT_FILE_KINDS.find((known) => known === search.get('kept')) ?? null;
  const shown = SHOWN.find((known) => known === search.get('shown')) ?? 'all';
  const asked = new URLSearchParams(ofClient);
  asked.set('words', useDeferredValue(words));
  if (kind) asked.set('kept', kind);
  if (shown === 'renew') asked.set('renew', 'yes');
  if (shown === 'away') asked.set('archived', 'yes');
  const found = useQuery(keptFilesQuery(asked.toString()));
  const files = found.data?.files ?? [];
  const edited = files.find(({ id }) => opened === `file-${id}`);
  const isPlain = words === '' && kind === null && shown === 'all';
  return (
    <>
      <PageHead nav={<ProductionNav />} title="Production" note="The library: files that are kept for clients" />
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2 mb-3 text-[13px]">
        <LibraryNav />
        <input
          type="search"
          aria-label="Words of its title or of what can be seen"
          placeholder="Words of its title or what can be seen"
          className="field w-72 max-w-full text-[14px]"
          maxLength={200}
          value={words}
          onChange={(event) => put({ words: event.target.value || null }, { replace: true })}
        />
        <FilterSelect words="Kind" value={kind} options={KINDS} onChange={(value) => put({ kept: value }, { replace: true })} />
        <Choice<Shown>
          label="What is shown"
          value={shown}
          options={[
            ['all', 'All'],
            ['renew', found.data?.toRenew ? `To be renewed (${found.data.toRenew})` : 'To be renewed'],
            ['away', 'Put away'],
          ]}
          onChange={(next) => put({ shown: next === 'all' ? null : next }, { replace: true })}
        />
        {isManager && clients.length > 0 && (
          <Button look="main" className="ml-auto" onClick={() => open('new-file')}>
            <Plus size={15} aria-hidden /> Keep a file
          </Button>
        )}
      </div>
      {found.isError && <Failed message={wordsOf(found.error)} onRetry={() => void found.refetch()} />}
      {found.isPending && <Loading />}
      {found.data && files.length === 0 && (
        <Empty title={isPlain ? `No file is kept${client ? ` for ${client.name}` : ''} yet` : 'No file is like that'}>
          {isPlain &&
            'Pictures of products, frames that pictures are begun from, a film of the house: kept once, taken into any piece, and renewed in time.'}
        </Empty>
      )}
      {files.length > 0 && (
        <ul aria-label="Kept files" className="grid gap-3 grid-cols-2 sm:grid-cols-[repeat(auto-fill,minmax(13.5rem,1fr))]">
          {files.map((file) => (
            <KeptFile key={file.id} file={file} isManager={isManager} onOpen={() => open(`file-${file.id}`)} />
          ))}
        </ul>
      )}
      {found.data && found.data.hidden > 0 && (
        <p className="text-muted mt-3">And {count(found.data.hidden, 'more file')}: look for them by their words.</p>
      )}
      {isManager && opened === 'new-file' && <NewKeptFileDialog onClose={close} />}
      {isManager && edited && <KeptFileDialog key={`${edited.id} ${edited.version}`} file={edited} onClose={close} />}
    </>
  );
}

function KeptFile({ file, isManager, onOpen }: { file: KeptFileShape; isManager: boolean; onOpen: () => void }) {
  const { clientOf, to } = useClients();
  const { todayOn } = useSession();
  const client = clientOf(file.clientId);
  const back = useWrite(() => call(`/kept-files/${file.id}/archive`, { method: 'POST', body: { archived: false } }));
  const renew = renewWords(file.renewBy, todayOn);
  const [latest] = file.pieces;
  return (
    <li className="card overflow-hidden flex flex-col">
      <KeptPicture file={file} src={`/api/files/${file.assetId}?width=480`} className="w-full aspect-[4/3] object-contain" />
      <div className="p-3 flex flex-col gap-1 flex-1 min-w-0">
        <p className="font-medium break-words leading-snug">{file.title}</p>
        <p className="text-muted text-[13px] flex flex-wrap items-center gap-x-1.5">
          {client && <ClientCode code={client.code} colour={client.colour} name={client.name} />}
          {KEPT_WORDS[file.kind].one}
        </p>
        {renew && (
          <p>
            <Tag tone={renew.tone}>{renew.words}</Tag>
          </p>
        )}
        <p className="text-muted text-[13px] break-words">
          {file.used === 0 ? 'In no piece yet' : `In ${count(file.used, 'piece')}`}
          {file.lastAt && `, last on ${dayWords(file.lastAt.slice(0, 10))}`}
          {latest && (
            <>
              {': '}
              <Link to={to(`/pieces/${latest.pieceId}`)} className="text-pine underline">
                {latest.title}
              </Link>
            </>
          )}
        </p>
        {isManager && (
          <p className="mt-auto pt-1 -ml-2">
            {file.archived ? (
              <Button look="quiet" disabled={back.isPending} onClick={() => back.mutate(undefined)} aria-label={`Take back ${file.title}`}>
                Take back
              </Button>
            ) : (
              <Button look="quiet" onClick={onOpen} aria-label={`Change… ${file.title}`}>
                Change…
              </Button>
            )}
          </p>
        )}
      </div>
    </li>
  );
}
