import { screen, waitFor } from '@testing-library/react';
import type { FormShape } from '@zesting/contract';
import { Refusal, showServed, type Made } from '../../../../test-support/served';
import { useFormDraft } from './use-form-draft';

const content = {
  title: 'A',
  items: [{ key: 'about', kind: 'short', label: 'About' }],
  intro: '',
  thanks: '',
  language: 'en',
  routeId: 'r1',
  rules: [],
  opensOn: null,
  closesOn: null,
  noticeDays: 0,
  answerDays: 0,
};
const form = { id: 'f', version: 1, content, faults: [], canEdit: true, clientIds: [] } as unknown as FormShape; // what a draft looks at
const titleIn = ({ body }: Made) => (body as { content: { title: string } }).content.title;
let settled: number | null | undefined;

function Edited() {
  const draft = useFormDraft(form);
  return (
    <>
      <input aria-label="Title" value={draft.content.title} onChange={(event) => draft.change({ title: event.target.value }, 'title')} />
      <output>{draft.state}</output>
      <p>{draft.failure}</p>
      <button onClick={() => void draft.settle().then((version) => (settled = version))}>Settle</button>
      <button onClick={draft.again}>Again</button>
      <button onClick={() => void draft.keepMine()}>Keep mine</button>
      <button onClick={() => draft.theirs && draft.take(draft.theirs)}>Take theirs</button>
    </>
  );
}
const state = () => screen.getByRole('status').textContent;
const title = () => screen.getByRole('textbox', { name: 'Title' });

/** A server that keeps the form, and refuses what was made against an older version. */
function server() {
  let [version, kept] = [1, content];
  return {
    change: (name: string) => ([version, kept] = [version + 1, { ...kept, title: name }]),
    put: (made: Made) => {
      if (made.version !== String(version))
        return new Refusal(412, { code: 'http.changed_meanwhile', theirs: { ...form, version, content: kept } });
      [version, kept] = [version + 1, (made.body as { content: typeof content }).content];
      return { ...form, version, content: kept };
    },
  };
}

describe('what is changed of a form', () => {
  it('goes to the server once typing rests, and one after the other when something waits for it', async () => {
    const { put } = server();
    let release: () => void = () => undefined;
    const held = new Promise<void>((resolve) => (release = resolve));
    const { sent, user } = showServed(<Edited />, {
      'PATCH /forms/f': async (made) => {
        await held;
        return put(made);
      },
    });
    await user.type(title(), 'b');
    expect(sent('PATCH')).toHaveLength(0);
    await waitFor(() => expect(sent('PATCH')).toHaveLength(1));
    await user.type(title(), 'c');
    await user.click(screen.getByRole('button', { name: 'Settle' })); // as publishing does, while the first is on its way
    expect(sent('PATCH')).toHaveLength(1);
    release();
    await waitFor(() => expect(settled).toBe(3));
    expect(sent('PATCH').map((made) => [made.version, titleIn(made)])).toEqual([
      ['1', 'Ab'],
      ['2', 'Abc'],
    ]);
    expect(state()).toBe('saved');
  });

  it('says that it could not be kept, keeps it here, and goes once it can', async () => {
    const { put } = server();
    let isAway = true;
    const { user } = showServed(<Edited />, {
      'PATCH /forms/f': (made) => (isAway ? new Refusal(503, { code: 'http.unexpected' }) : put(made)),
    });
    await user.type(title(), 'b');
    await user.click(screen.getByRole('button', { name: 'Settle' }));
    await waitFor(() => expect(state()).toBe('failed'));
    expect([settled, (title() as HTMLInputElement).value]).toEqual([null, 'Ab']);
    isAway = false;
    await user.click(screen.getByRole('button', { name: 'Again' }));
    await waitFor(() => expect(state()).toBe('saved'));
  });

  it.each([
    ['Keep mine', 'Ab', ['1', '2']],
    ['Take theirs', 'Theirs', ['1']],
  ])('is not written over what somebody else changed until one is chosen: %s', async (chosen, name, versions) => {
    const { put, change } = server();
    const { sent, user } = showServed(<Edited />, { 'PATCH /forms/f': put });
    change('Theirs');
    await user.type(title(), 'b');
    await waitFor(() => expect(state()).toBe('conflict'), { timeout: 2000 });
    expect(title()).toHaveValue('Ab');
    await user.click(screen.getByRole('button', { name: chosen }));
    await waitFor(() => expect(state()).toBe('saved'));
    expect(title()).toHaveValue(name);
    expect(sent('PATCH').map(({ version }) => version)).toEqual(versions);
  });
});
