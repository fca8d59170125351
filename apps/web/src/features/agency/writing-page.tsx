import { useQuery } from '@tanstack/react-query';
import type { FormatTextBody, FormatWritingShape, OutlineHeadingBody } from '@zesting/contract';
import { CHANNEL_KINDS, CHANNEL_STOCK, type ChannelKind } from '@zesting/core';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { formatWritingsQuery } from '../../api/agency';
import { call, wordsOf } from '../../lib/api';
import { count } from '../../lib/format';
import { useTouched } from '../../lib/queries';
import { useSearch } from '../../lib/use-search';
import { EditedSection, useEdited } from '../../ui/edited';
import { ListEditor } from '../../ui/list-editor';
import { Empty, Failed, Loading, PageHead } from '../../ui/page';

/** What pieces of each format are written by: their texts besides the copy, and the outline that copy begins from. */
export function WritingPage() {
  const formats = useQuery(formatWritingsQuery);
  const { search, put } = useSearch();
  if (formats.isError) return <Failed message={wordsOf(formats.error)} onRetry={() => void formats.refetch()} />;
  if (!formats.data) return <Loading />;
  const { formats: all, canEdit } = formats.data;
  const chosen = all.find(({ formatId }) => formatId === search.get('format')) ?? all[0];
  return (
    <>
      <PageHead title="What each format is written by" />
      {!chosen ? (
        <Empty title="No format yet">
          Formats are listed in the <Link to="/agency?part=lists">agency’s settings</Link>.
        </Empty>
      ) : (
        <div className="grid gap-4 lg:grid-cols-[14rem_minmax(0,1fr)] items-start">
          <nav aria-label="Formats" className="card p-2">
            {all.map(({ formatId, name, texts, outline, isLaidOut }) => (
              <button
                key={formatId}
                type="button"
                aria-current={formatId === chosen.formatId ? 'page' : undefined}
                className={`block w-full text-left rounded-md px-2.5 py-1 min-h-9 hover:bg-sunk ${formatId === chosen.formatId ? 'bg-sunk font-semibold' : ''}`}
                onClick={() => put({ format: formatId })}
              >
                {name}
                <span className="block text-muted text-[12px] font-normal">{writtenWords(texts.length, outline.length, isLaidOut)}</span>
              </button>
            ))}
          </nav>
          <FormatWriting key={chosen.formatId} format={chosen} isLocked={!canEdit} />
        </div>
      )}
    </>
  );
}

const writtenWords = (texts: number, headings: number, isLaidOut: boolean): string =>
  [isLaidOut && 'laid out', texts > 0 && count(texts, 'text'), headings > 0 && count(headings, 'heading')].filter(Boolean).join(', ') ||
  'copy alone';

type Writing = Pick<FormatWritingShape, 'texts' | 'outline' | 'isLaidOut'>;
const writingOf = ({ texts, outline, isLaidOut }: Writing): Writing => ({ texts, outline, isLaidOut });

/** A name for good, that no other text of the format ever had. */
const newKey = (): string => Math.random().toString(36).slice(2, 12);

function FormatWriting({ format, isLocked }: { format: FormatWritingShape; isLocked: boolean }) {
  const touched = useTouched();
  const edited = useEdited<Writing, FormatWritingShape>(
    `format:${format.formatId}:writing`,
    writingOf(format),
    format.version,
    async (body, version) => {
      await call(`/formats/${format.formatId}/writing`, { method: 'PUT', body, version });
      touched();
      toast('Saved');
    },
    writingOf,
  );
  const { texts, outline, isLaidOut } = edited.draft;
  return (
    <EditedSection
      title={format.name}
      note="Texts stand above the copy where a piece is made, are signed with it, and go out with it. What is written already stays where a text is taken out."
      edited={edited}
      readOnly={isLocked}
    >
      <fieldset disabled={isLocked} className="grid gap-5">
        <div>
          <h3 className="text-base mb-1">Texts besides the copy</h3>
          <ListEditor<FormatTextBody>
            label="Texts besides the copy"
            ordered
            items={texts}
            onChange={(next) => edited.change({ texts: next })}
            nameOf={({ name }) => name}
            make={() => ({ key: newKey(), name: '', isLong: false, prompt: '', limit: null, isNeeded: false })}
            addWords="Add a text"
            empty="None: pieces of this format have their copy alone. Others have a subject line, a title, a script, the words of each slide."
          >
            {(text, put) => <TextFields text={text} onPut={put} />}
          </ListEditor>
        </div>
        <div>
          <h3 className="text-base mb-1">The copy</h3>
          <Ticked label="It has headings, lists and links" isOn={isLaidOut} onChange={(next) => edited.change({ isLaidOut: next })} />
          <p className="text-muted text-[13px]">
            For what is read at length: an article, a letter. Channels that show words alone get them as words. What is written already
            stays as it is.
          </p>
        </div>
        <div>
          <h3 className="text-base mb-1">Outline of the copy</h3>
          <ListEditor<OutlineHeadingBody>
            label="Outline of the copy"
            ordered
            dense
            items={outline}
            onChange={(next) => edited.change({ outline: next })}
            nameOf={({ heading }) => heading}
            make={() => ({ heading: '', prompt: '' })}
            addWords="Add a heading"
            empty="None: the copy begins empty."
          >
            {({ heading, prompt, kinds = [] }, put) => (
              <div className="grid gap-2 sm:grid-cols-[1fr_2fr]">
                <Named label="Heading" value={heading} most={120} onChange={(next) => put({ heading: next })} />
                <Named label="What helps to write it" value={prompt} most={300} onChange={(next) => put({ prompt: next })} />
                <OnlyOn heading={heading} kinds={kinds} onPut={(next) => put({ kinds: next })} />
              </div>
            )}
          </ListEditor>
        </div>
      </fieldset>
    </EditedSection>
  );
}

/** On which kinds of channel a heading belongs into copy that goes out there and nowhere else. */
function OnlyOn({ heading, kinds, onPut }: { heading: string; kinds: readonly ChannelKind[]; onPut: (kinds: ChannelKind[]) => void }) {
  const names = CHANNEL_KINDS.filter((kind) => kinds.includes(kind)).map((kind) => CHANNEL_STOCK[kind].name);
  return (
    <details className="text-[13px] sm:col-span-2">
      <summary className="text-muted min-h-6">{names.length === 0 ? 'On every channel' : `Only on: ${names.join(', ')}`}</summary>
      <div role="group" aria-label={`Only on, for ${heading || 'a heading without a name'}`} className="flex flex-wrap gap-x-5">
        {CHANNEL_KINDS.map((kind) => (
          <Ticked
            key={kind}
            label={CHANNEL_STOCK[kind].name}
            isOn={kinds.includes(kind)}
            onChange={(isOn) => onPut(CHANNEL_KINDS.filter((each) => (each === kind ? isOn : kinds.includes(each))))}
          />
        ))}
      </div>
    </details>
  );
}

function TextFields({ text, onPut }: { text: FormatTextBody; onPut: (part: Partial<FormatTextBody>) => void }) {
  return (
    <div className="grid gap-2">
      <div className="grid gap-2 sm:grid-cols-[1fr_2fr_7rem]">
        <Named label="Name" value={text.name} most={40} onChange={(name) => onPut({ name })} />
        <Named label="What helps to write it" value={text.prompt} most={300} onChange={(prompt) => onPut({ prompt })} />
        <label className="text-[13px]">
          <span className="text-muted">Characters</span>
          <input
            className="field"
            type="number"
            min={1}
            max={20_000}
            placeholder="no limit"
            value={text.limit ?? ''}
            onChange={({ target }) => onPut({ limit: target.value === '' ? null : Number(target.value) })}
          />
        </label>
      </div>
      <div className="flex flex-wrap gap-x-5 text-[13px]">
        <Ticked label="Several lines" isOn={text.isLong} onChange={(isLong) => onPut({ isLong, ...(isLong ? {} : { isSlides: false }) })} />
        <Ticked
          label="The words of slides, each beside its picture"
          isOn={text.isSlides === true}
          onChange={(isSlides) => onPut({ isSlides, ...(isSlides ? { isLong: true } : {}) })}
        />
        <Ticked label="A piece goes out only with it" isOn={text.isNeeded} onChange={(isNeeded) => onPut({ isNeeded })} />
      </div>
    </div>
  );
}

interface NamedProps {
  readonly label: string;
  readonly value: string;
  readonly most: number;
  readonly onChange: (value: string) => void;
}

const Named = ({ label, value, most, onChange }: NamedProps) => (
  <label className="text-[13px] min-w-0">
    <span className="text-muted">{label}</span>
    <input className="field" maxLength={most} value={value} onChange={({ target }) => onChange(target.value)} />
  </label>
);

const Ticked = ({ label, isOn, onChange }: { label: string; isOn: boolean; onChange: (isOn: boolean) => void }) => (
  <label className="inline-flex items-center gap-1.5 min-h-7">
    <input type="checkbox" className="size-4 accent-pine" checked={isOn} onChange={({ target }) => onChange(target.checked)} />
    {label}
  </label>
);
