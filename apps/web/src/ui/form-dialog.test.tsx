import { NewPersonBody } from '@zesting/contract';
import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ApiProblem } from '../lib/api';
import { useBodyForm } from '../lib/use-body-form';
import { Field } from './field';
import { FormDialog } from './form-dialog';

const FIRST: NewPersonBody = {
  name: '',
  email: '',
  role: 'staff',
  zone: 'Europe/London',
  region: 'GB-ENG',
  weeklyMinutes: [480, 480, 480, 480, 480, 0, 0],
  skills: {},
};

/** A form of a person's name and address, over the contract's whole body. */
function Asked({ first = FIRST, send }: { first?: NewPersonBody; send: (body: NewPersonBody) => Promise<unknown> }) {
  const form = useBodyForm<NewPersonBody>(NewPersonBody, first, { send, words: { email: { isEmail: 'Where does their mail go?' } } });
  return (
    <FormDialog form={form} onClose={() => undefined} title="A person" action="Take on">
      {(['name', 'email'] as const).map((name) => (
        <Field key={name} label={name} error={form.errorOf(name)}>
          {(control) => <input {...control} value={form.body[name]} onChange={(event) => form.change({ [name]: event.target.value })} />}
        </Field>
      ))}
    </FormDialog>
  );
}

function show(send: (body: NewPersonBody) => Promise<unknown> = () => Promise.resolve(), first = FIRST) {
  const sent: NewPersonBody[] = [];
  render(
    <Asked
      first={first}
      send={(body) => {
        sent.push(body);
        return send(body);
      }}
    />,
  );
  const [name, email] = [screen.getByLabelText('name'), screen.getByLabelText('email')];
  return { sent, name, email, user: userEvent.setup(), press: screen.getByRole('button', { name: 'Take on' }) };
}

describe('a form over a body of the contract', () => {
  it('says at each field what is wrong there, goes to the first, and sends nothing', async () => {
    const { sent, name, email, user, press } = show();
    await user.type(name, '   ');
    await user.type(email, 'nowhere');
    await user.click(press);
    await waitFor(() => expect(name).toHaveFocus());
    expect(name).toHaveAccessibleDescription('This is needed.');
    expect(email).toHaveAccessibleDescription('Where does their mail go?');
    expect(screen.queryByRole('alert')).toBeNull();
    expect(sent).toEqual([]);
    // what is put right is right at once
    await user.type(name, 'Ann');
    await waitFor(() => expect(name).not.toHaveAttribute('aria-invalid', 'true'));
    expect(email).toHaveAttribute('aria-invalid', 'true');
  });

  it('sends the whole body once it holds', async () => {
    const { sent, name, email, user, press } = show();
    await user.type(name, 'Ann');
    await user.type(email, 'ann@agency.test');
    await user.click(press);
    await waitFor(() => expect(sent).toHaveLength(1));
    expect({ ...sent[0] }).toEqual({ ...FIRST, name: 'Ann', email: 'ann@agency.test' });
  });

  it('shows at their fields what the server finds wrong, and what is about the whole above the buttons', async () => {
    const answers = [
      new ApiProblem('http.invalid', 400, { errors: { email: ['isEmail'] } }),
      new ApiProblem('person.email_taken', 409, {}),
    ];
    const { name, email, user, press } = show(() => Promise.reject(answers.shift()));
    await user.type(name, 'Ann');
    await user.type(email, 'ann@agency.test');
    await user.click(press);
    await waitFor(() => expect(email).toHaveFocus());
    expect(email).toHaveAccessibleDescription('Where does their mail go?');
    await user.type(email, '.uk');
    await user.click(press);
    expect(await screen.findByRole('alert')).not.toBeEmptyDOMElement();
    expect(email).toHaveValue('ann@agency.test.uk');
  });

  it('names what is wrong where no field shows it', async () => {
    const { sent, user, press } = show(undefined, { ...FIRST, name: 'Ann', email: 'ann@agency.test', zone: 'Moon/Base' });
    await user.click(press);
    expect(await screen.findByRole('alert')).toHaveTextContent('This cannot be taken: zone.');
    expect(sent).toEqual([]);
  });
});
