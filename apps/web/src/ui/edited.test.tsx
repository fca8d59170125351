import { render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ApiProblem } from '../lib/api';
import { forgetKept, hasKept } from '../lib/kept';
import { EditedSection, useEdited } from './edited';

interface Page {
  readonly version: number;
  readonly name: string;
}

function Named({ page, store }: { page: Page; store: (draft: { name: string }, version: number) => Promise<unknown> }) {
  const edited = useEdited('named', { name: page.name }, page.version, store, (theirs: Page) => ({ name: theirs.name }));
  return (
    <EditedSection title="Person" edited={edited}>
      <input aria-label="Name" value={edited.draft.name} onChange={(event) => edited.change({ name: event.target.value })} />
    </EditedSection>
  );
}

describe('a part of a page that is saved by itself', () => {
  beforeEach(() => forgetKept());
  const type = async (words: string) => {
    const user = userEvent.setup();
    await user.clear(screen.getByLabelText('Name'));
    await user.type(screen.getByLabelText('Name'), words);
    return user;
  };

  it('can be saved once something differs, over the version it was begun from', async () => {
    const stored: unknown[] = [];
    const store = (draft: { name: string }, version: number) => Promise.resolve(stored.push([draft, version]));
    const { rerender } = render(<Named page={{ version: 3, name: 'Ann' }} store={store} />);
    expect(screen.getByRole('button', { name: 'Save' })).toBeDisabled();
    const user = await type('Anna');
    expect(hasKept()).toBe(true); // asked before the window is closed
    // somebody else saves meanwhile: what is typed stays, and is still of version 3
    rerender(<Named page={{ version: 4, name: 'Anke' }} store={store} />);
    expect(screen.getByLabelText('Name')).toHaveValue('Anna');
    await user.click(screen.getByRole('button', { name: 'Save' }));
    await waitFor(() => expect(stored).toEqual([[{ name: 'Anna' }, 3]]));
    expect(hasKept()).toBe(false);
  });

  it('is as it was when it is left as it was', async () => {
    render(<Named page={{ version: 1, name: 'Ann' }} store={() => Promise.resolve()} />);
    const user = await type('Otto');
    await user.click(screen.getByRole('button', { name: 'Leave as it was' }));
    expect(screen.getByLabelText('Name')).toHaveValue('Ann');
    expect(hasKept()).toBe(false);
  });

  it('keeps what was typed when it could not be saved, and says so', async () => {
    render(<Named page={{ version: 1, name: 'Ann' }} store={() => Promise.reject(new ApiProblem('http.offline', 0, {}))} />);
    const user = await type('Otto');
    await user.click(screen.getByRole('button', { name: 'Save' }));
    expect(await screen.findByRole('alert')).toHaveTextContent('Nothing was saved; what you typed is still here.');
    expect(screen.getByLabelText('Name')).toHaveValue('Otto');
  });

  it('shows both states when somebody else was first, and saves the own over theirs only when told to', async () => {
    const versions: number[] = [];
    const store = (_: unknown, version: number) => {
      versions.push(version);
      if (version === 7) return Promise.resolve();
      return Promise.reject(new ApiProblem('http.changed_meanwhile', 412, { theirs: { version: 7, name: 'Anke' } }));
    };
    render(<Named page={{ version: 6, name: 'Ann' }} store={store} />);
    const user = await type('Otto');
    await user.click(screen.getByRole('button', { name: 'Save' }));
    const dialog = await screen.findByRole('dialog', { name: 'Somebody else saved this meanwhile' });
    expect(
      within(dialog)
        .getAllByRole('cell')
        .map((cell) => cell.textContent),
    ).toEqual(['Otto', 'Anke']);
    await user.click(within(dialog).getByRole('button', { name: 'Save mine over theirs' }));
    await waitFor(() => expect(versions).toEqual([6, 7]));
  });
});
