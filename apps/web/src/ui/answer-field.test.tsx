import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { InterviewQuestionShape } from '@zesting/contract';
import { ApiProblem } from '../lib/api';
import { forgetKept } from '../lib/kept';
import { AnswerField } from './answer-field';

const question = (more: Partial<InterviewQuestionShape> = {}): InterviewQuestionShape => ({
  id: 'q1',
  question: 'Who rings?',
  answer: '',
  answeredBy: null,
  answeredAt: null,
  version: 1,
  ...more,
});
const answered = question({ answer: 'My aunt.', answeredBy: 'Ann Other', answeredAt: '2027-03-01T09:00:00Z', version: 2 });

describe('a question and its answer', () => {
  beforeEach(() => forgetKept());

  it('has a field at once for who is asked, and keeps what was typed with the version that was seen', async () => {
    const keep = jest.fn(() => Promise.resolve());
    render(<AnswerField question={question()} onKeep={keep} isOwn />);
    expect(screen.queryByRole('button', { name: 'Keep this answer' })).toBeNull(); // nothing is typed yet
    await userEvent.type(screen.getByRole('textbox', { name: 'Who rings?' }), 'My uncle.');
    await userEvent.click(screen.getByRole('button', { name: 'Keep this answer' }));
    expect(keep).toHaveBeenCalledWith(question(), 'My uncle.');
    await waitFor(() => expect(screen.getByRole('textbox')).toHaveValue(''));
  });

  it('loses nothing where keeping fails, nor while its page is away', async () => {
    const fails = () => Promise.reject(new ApiProblem('http.changed_meanwhile', 412, {}));
    const first = render(<AnswerField question={question()} onKeep={fails} isOwn />);
    await userEvent.type(screen.getByRole('textbox'), 'My uncle.');
    await userEvent.click(screen.getByRole('button', { name: 'Keep this answer' }));
    expect(await screen.findByRole('alert')).toHaveTextContent('What you typed is still here.');
    expect(screen.getByRole('textbox')).toHaveValue('My uncle.');
    first.unmount();
    render(<AnswerField question={question()} onKeep={fails} isOwn />);
    expect(screen.getByRole('textbox')).toHaveValue('My uncle.');
    await userEvent.click(screen.getByRole('button', { name: 'Clear it' }));
    expect(screen.getByRole('textbox')).toHaveValue('');
  });

  it('is changed or taken back by who may, and told with the name of who said it to the team alone', async () => {
    const keep = jest.fn(() => Promise.resolve());
    const shown = render(<AnswerField question={answered} onKeep={keep} />);
    expect(screen.getByText(/Ann Other/)).toBeInTheDocument();
    await userEvent.click(screen.getByRole('button', { name: 'Change the answer to “Who rings?”' }));
    expect(screen.getByRole('textbox')).toHaveValue('My aunt.');
    expect(screen.getByRole('button', { name: 'Keep this answer' })).toBeDisabled(); // nothing is changed
    await userEvent.clear(screen.getByRole('textbox'));
    await userEvent.click(screen.getByRole('button', { name: 'Take the answer back' }));
    expect(keep).toHaveBeenCalledWith(answered, '');
    shown.unmount();
    render(<AnswerField question={answered} onKeep={keep} isOwn />);
    expect(screen.queryByText(/Ann Other/)).toBeNull();
  });

  it('is only read by who may not write', () => {
    render(
      <ul>
        <AnswerField question={question()} />
        <AnswerField question={{ ...answered, id: 'q2' }} />
      </ul>,
    );
    expect(screen.getByText('Not answered yet.')).toBeInTheDocument();
    expect(screen.queryByRole('textbox')).toBeNull();
    expect(screen.queryByRole('button')).toBeNull();
  });
});
