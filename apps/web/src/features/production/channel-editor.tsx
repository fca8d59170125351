import type { ChannelContentShape, ContentShape } from '@zesting/contract';
import { characters, count } from '../../lib/format';
import { Field } from '../../ui/field';
import { neverWords } from './never-words';
import { Preview } from '../../ui/preview';

interface ChannelEditorProps {
  readonly part: ChannelContentShape;
  readonly shared: ContentShape['shared'];
  readonly readOnly: boolean;
  /** the client's words never to use */
  readonly wordsNever: readonly string[];
  readonly onChange: (part: ChannelContentShape) => void;
}

const toTags = (text: string): string[] => text.split(/[\s,]+/).flatMap((tag) => tag.replace(/^#+/, '') || []);

/** One channel's own part, with how it will look there. */
export function ChannelEditor({ part, shared, readOnly, wordsNever, onChange }: ChannelEditorProps) {
  const copy = part.copy.trim() === '' ? shared.copy : part.copy;
  const length = characters(copy);
  const tooLong = part.copyLimit !== null && length > part.copyLimit;
  const tooMany = part.mediaLimit !== null && shared.media.length > part.mediaLimit;
  return (
    <div className="grid gap-5 md:grid-cols-[minmax(0,1fr)_minmax(180px,240px)] items-start">
      <div>
        <Field
          label={`Copy on ${part.name}`}
          warning={neverWords(part.copy, wordsNever)}
          help={part.copyLimit === null ? `${length} characters` : `${length} of ${part.copyLimit} characters`}
          error={tooLong ? `${length - (part.copyLimit ?? 0)} characters too many for this channel` : undefined}
        >
          {(control) => (
            <textarea
              {...control}
              className="field"
              rows={3}
              readOnly={readOnly}
              value={part.copy}
              placeholder="Empty: the shared copy goes out here"
              onChange={(event) => onChange({ ...part, copy: event.target.value })}
            />
          )}
        </Field>
        <TagsField part={part} readOnly={readOnly} onChange={onChange} />
        <Field label="First comment" warning={neverWords(part.firstComment, wordsNever)}>
          {(control) => (
            <input
              {...control}
              className="field"
              readOnly={readOnly}
              value={part.firstComment}
              onChange={(event) => onChange({ ...part, firstComment: event.target.value })}
            />
          )}
        </Field>
        <Field label="Link">
          {(control) => (
            <input
              {...control}
              className="field"
              type="url"
              readOnly={readOnly}
              value={part.link}
              onChange={(event) => onChange({ ...part, link: event.target.value })}
            />
          )}
        </Field>
      </div>
      <figure className="card p-3 bg-paper">
        <figcaption className="text-muted text-[12px] mb-2">
          As on {part.name}, {part.ratio}
          {part.mediaLimit !== null && `, ${shared.media.length} of ${count(part.mediaLimit, 'picture or clip', 'pictures and clips')}`}
        </figcaption>
        {tooMany && (
          <p role="alert" className="text-rhubarb font-medium text-[13px] mb-2">
            {part.name} takes {count(part.mediaLimit ?? 0, 'picture or clip', 'pictures and clips')}: the first{' '}
            {part.mediaLimit === 1 ? 'goes' : `${part.mediaLimit ?? 0} go`} out there.
          </p>
        )}
        {shared.media[0] ? (
          <Preview medium={shared.media[0]} ratio={part.ratio} source={`/api/files/${shared.media[0].assetId}`} />
        ) : (
          <div className="bg-sunk rounded-md grid place-items-center text-muted text-[13px] min-h-28">No picture yet</div>
        )}
        <p className="mt-2 whitespace-pre-wrap break-words text-[13px]">{copy}</p>
        {part.tags.length > 0 && <p className="text-lake text-[13px] break-words">{part.tags.map((tag) => `#${tag}`).join(' ')}</p>}
      </figure>
    </div>
  );
}

/** Tags in their order. Typing goes on freely; what is stored is the list. */
function TagsField({ part, readOnly, onChange }: Pick<ChannelEditorProps, 'part' | 'readOnly' | 'onChange'>) {
  const over = part.tagLimit === null ? 0 : part.tags.length - part.tagLimit;
  return (
    <Field
      label="Tags"
      help={part.tagLimit === null ? 'Apart by spaces; their order is kept.' : `${part.tags.length} of ${part.tagLimit}; apart by spaces`}
      error={
        over > 0 ? (part.tagLimit === 0 ? `${part.name} takes no tags` : `${count(over, 'tag')} too many for this channel`) : undefined
      }
    >
      {(control) => (
        <input
          {...control}
          key={part.tags.join(' ')}
          className="field"
          readOnly={readOnly}
          defaultValue={part.tags.map((tag) => `#${tag}`).join(' ')}
          onBlur={(event) => {
            const tags = toTags(event.target.value);
            if (tags.join(' ') !== part.tags.join(' ')) onChange({ ...part, tags });
          }}
        />
      )}
    </Field>
  );
}
