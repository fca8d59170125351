import { useQuery } from '@tanstack/react-query';
import type { MakeSpinOffsBody, PreviewedOutputShape, SpinOffPreviewShape, SpinOffsMadeShape, SpreadOfferShape } from '@zesting/contract';
import { areClipTimes, outputTitle } from '@zesting/core';
import { useDeferredValue, useState } from 'react';
import { toast } from 'sonner';
import { spinOffPreviewQuery, spinOffsQuery } from '../../api/spin-offs';
import { ApiProblem, call, wordsOf } from '../../lib/api';
import { count, dayWords } from '../../lib/format';
import { useWrite } from '../../lib/queries';
import { Field } from '../../ui/field';
import { FormDialog } from '../../ui/form-dialog';
import { Failed, Loading } from '../../ui/page';
import { OutputRow, type Output } from './output-row';

interface MakeDialogProps {
  readonly piece: { readonly id: string; readonly clientId: string; readonly title: string };
  readonly onClose: () => void;
}

/** Makes pieces from one by a spread: all of them are seen with their dates and what is late, changed or left out, and then made at once. */
export function MakeSpinOffsDialog({ piece, onClose }: MakeDialogProps) {
  const found = useQuery(spinOffsQuery(piece.id));
  const [spreadId, setSpreadId] = useState<string>();
  const spreads = found.data?.spreads ?? [];
  const chosen = spreads.find(({ id }) => id === spreadId) ?? spreads[0];
  if (!found.data || !chosen)
    return (
      <FormDialog
        form={{ onSubmit: (event) => event.preventDefault(), wrong: undefined, busy: true }}
        onClose={onClose}
        title={`Spin-offs of “${piece.title}”`}
        action="Make them"
      >
        {found.isError && <Failed message={wordsOf(found.error)} onRetry={() => void found.refetch()} />}
        {found.isPending && <Loading />}
        {found.data && <p className="mb-3">No spread is kept for this kind of piece: see Spreads on the client’s page.</p>}
      </FormDialog>
    );
  return <Chosen key={chosen.id} piece={piece} spread={chosen} spreads={spreads} onSpread={setSpreadId} onClose={onClose} />;
}

interface ChosenProps extends MakeDialogProps {
  readonly spread: SpreadOfferShape;
  readonly spreads: readonly SpreadOfferShape[];
  readonly onSpread: (id: string) => void;
}

/** What the spread proposes, once it is there. */
function Chosen(props: ChosenProps) {
  const proposal: MakeSpinOffsBody = { spreadId: props.spread.id, outputs: [], known: 0, giveFirst: true };
  const proposed = useQuery({ ...spinOffPreviewQuery(props.piece.id, proposal), placeholderData: undefined, staleTime: Infinity });
  if (proposed.data) return <Form {...props} proposal={proposed.data} />;
  return (
    <FormDialog
      form={{ onSubmit: (event) => event.preventDefault(), wrong: undefined, busy: true }}
      onClose={props.onClose}
      wide
      title={`Spin-offs of “${props.piece.title}”`}
      action="Make them"
    >
      {proposed.isError ? <Failed message={wordsOf(proposed.error)} onRetry={() => void proposed.refetch()} /> : <Loading />}
    </FormDialog>
  );
}

const outputsOf = ({ outputs }: SpinOffPreviewShape): Output[] =>
  outputs.map(({ lineKey, name, on, isThere }, index) => ({
    id: String(index),
    lineKey,
    name,
    on,
    from: undefined,
    to: undefined,
    isChosen: !isThere,
  }));

const isOf =
  ({ lineKey }: Output) =>
  (seen: PreviewedOutputShape): boolean =>
    seen.lineKey === lineKey;
/** What was reckoned for an output as it stands now. */
const seenAs = (output: Output, preview: SpinOffPreviewShape | undefined): PreviewedOutputShape | undefined =>
  preview?.outputs.find((seen) => isOf(output)(seen) && seen.on === output.on);

/** A time that is typed: nothing typed is none, and what cannot be read stops the making. */
const seconds = (typed: Output['from']): number | null => (typed === undefined || Number.isNaN(typed) ? null : typed);
const isRight = ({ from, to }: Output): boolean =>
  (from === undefined) === (to === undefined) && (from === undefined || to === undefined || areClipTimes({ from, to }));

function Form({ piece, spread, spreads, proposal, onSpread, onClose }: ChosenProps & { proposal: SpinOffPreviewShape }) {
  const [first] = useState(proposal); // as it was opened: what others make meanwhile is noticed when it is sent
  const [outputs, setOutputs] = useState(() => outputsOf(first));
  const [givesFirst, setGivesFirst] = useState(true);
  const [wrong, setWrong] = useState<string>();
  const body: MakeSpinOffsBody = {
    spreadId: spread.id,
    outputs: outputs
      .filter(({ isChosen }) => isChosen)
      .map(({ lineKey, name, on, from, to }) => ({ lineKey, name, on, fromSecond: seconds(from), toSecond: seconds(to) })),
    known: first.known,
    giveFirst: givesFirst,
  };
  // names and the times of clips change nothing that is reckoned
  const asked = {
    ...body,
    giveFirst: true,
    outputs: body.outputs.map((output) => ({ ...output, name: '', fromSecond: null, toSecond: null })),
  };
  const later = useDeferredValue(asked);
  const preview = useQuery({ ...spinOffPreviewQuery(piece.id, later), enabled: later.outputs.length > 0 });
  const make = useWrite(
    (sent: MakeSpinOffsBody) => call<SpinOffsMadeShape>(`/pieces/${piece.id}/spin-offs`, { method: 'POST', body: sent }),
    {
      quiet: true,
    },
  );
  const days = [...(preview.data?.days ?? []), ...first.days];
  const seenOf = (output: Output) => seenAs(output, preview.data) ?? seenAs(output, first) ?? first.outputs.find(isOf(output));
  const standingOf = (output: Output) => (output.isChosen && output.on !== null ? (seenOf(output)?.standing ?? 'fine') : 'fine');
  const late = outputs.filter((output) => standingOf(output) !== 'fine').length;
  const put = (id: string, part: Partial<Output>) => {
    setWrong(undefined);
    setOutputs(outputs.map((output) => (output.id === id ? { ...output, ...part } : output)));
  };
  const submit = () => {
    if (body.outputs.length === 0) return setWrong('Choose at least one that is made.');
    if (outputs.some((output) => output.isChosen && !isRight(output)))
      return setWrong('A clip has a beginning and an end after it, such as 1:15 and 1:40.');
    if (outputs.some((output) => standingOf(output) === 'past'))
      return setWrong('One of them would stand in the past: choose a later day, or none.');
    make.mutate(body, {
      onSuccess: ({ pieceIds }) => {
        toast(`${count(pieceIds.length, 'piece')} made from “${piece.title}”.`);
        onClose();
      },
      onError: (error) =>
        setWrong(
          error instanceof ApiProblem && error.code === 'http.changed_meanwhile'
            ? 'Somebody else made some of them meanwhile. Close this and look again.'
            : wordsOf(error),
        ),
    });
  };
  return (
    <FormDialog
      form={{
        onSubmit: (event) => {
          event.preventDefault();
          submit();
        },
        wrong,
        busy: make.isPending,
      }}
      onClose={onClose}
      wide
      title={`Spin-offs of “${piece.title}”`}
      description={first.sourceOn ? `Its day is ${dayWords(first.sourceOn)}.` : 'It has no day yet: they are made without one.'}
      action={`Make ${count(body.outputs.length, 'piece')}`}
    >
      {spreads.length > 1 && (
        <Field label="Spread">
          {(control) => (
            <select {...control} className="field max-w-sm" value={spread.id} onChange={(event) => onSpread(event.target.value)}>
              {spreads.map(({ id, name, isUsed }) => (
                <option key={id} value={id}>
                  {name}
                  {isUsed ? '' : ' (not in use yet)'}
                </option>
              ))}
            </select>
          )}
        </Field>
      )}
      {preview.isError && <Failed message={wordsOf(preview.error)} onRetry={() => void preview.refetch()} />}
      <ul className="mb-3">
        {outputs.map((output, index) => (
          <OutputRow
            key={output.id}
            output={output}
            title={outputTitle(piece.title, output.name)}
            seen={seenOf(output)}
            against={days.find(({ on }) => on === output.on)?.names ?? []}
            clientId={piece.clientId}
            put={(part) => put(output.id, part)}
            onAnother={() => setOutputs(withAnother(outputs, index))}
          />
        ))}
      </ul>
      <label className="flex items-center gap-2 min-h-8 mb-2">
        <input
          type="checkbox"
          className="size-4 accent-pine"
          checked={givesFirst}
          onChange={(event) => setGivesFirst(event.target.checked)}
        />
        Give the other steps to those who usually do them, else to whoever is free first
      </label>
      <p role="status" className={late > 0 ? 'text-rhubarb font-medium mb-2' : 'sr-only'}>
        {late > 0 ? `${late} of ${body.outputs.length} would not be in time.` : 'All would be in time.'}
      </p>
    </FormDialog>
  );
}

/** One more of the same line, right behind it. */
function withAnother(outputs: readonly Output[], index: number): Output[] {
  const one = outputs[index];
  if (!one) return [...outputs];
  const more = {
    ...one,
    id: `${one.id}+${outputs.length}`,
    name: `${one.name} ${outputs.filter(({ lineKey }) => lineKey === one.lineKey).length + 1}`.trim(),
  };
  return [...outputs.slice(0, index + 1), { ...more, from: undefined, to: undefined, isChosen: true }, ...outputs.slice(index + 1)];
}
