import { useSuspenseQuery } from '@tanstack/react-query';
import type { DeviceShape } from '@zesting/contract';
import { toast } from 'sonner';
import { devicesQuery } from '../../api/agency';
import { call } from '../../lib/api';
import { instantWords } from '../../lib/format';
import { useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Tag } from '../../ui/tags';

/** Where one is signed in, to be ended one by one or all together; and the way to another password. */
export function DevicesSection({ email }: { email: string }) {
  const { data: devices } = useSuspenseQuery(devicesQuery);
  const end = useWrite((path: string) => call(`/session/devices${path}`, { method: 'DELETE' }));
  const reset = useWrite(() => call('/resets', { method: 'POST', body: { email } }));
  return (
    <section aria-label="Signed in" className="card p-4">
      <h2 className="text-lg mb-1">Signed in</h2>
      <ul className="grid divide-y divide-line">
        {devices.map((device) => (
          <li key={device.id} className="flex items-center gap-3 py-2">
            <div className="min-w-0">
              <p className="font-medium flex items-center gap-2">
                <span className="truncate">{device.program || 'Some program'}</span>
                {device.isThis && <Tag>This one</Tag>}
              </p>
              <p className="text-muted text-[13px]">{deviceWords(device)}</p>
            </div>
            {!device.isThis && (
              <Button
                className="ml-auto shrink-0"
                disabled={end.isPending}
                onClick={() => end.mutate(`/${device.id}`, { onSuccess: () => toast('Signed out there') })}
              >
                Sign out there
              </Button>
            )}
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-2 mt-2">
        {devices.length > 1 && (
          <Button disabled={end.isPending} onClick={() => end.mutate('', { onSuccess: () => toast('Signed out everywhere else') })}>
            Sign out everywhere else
          </Button>
        )}
        <Button
          disabled={reset.isPending}
          onClick={() => reset.mutate(undefined, { onSuccess: () => toast(`A link to choose a new password is on its way to ${email}`) })}
        >
          Change the password
        </Button>
      </div>
    </section>
  );
}

const deviceWords = ({ signedInAt, seenAt, address }: DeviceShape): string =>
  [signedInAt && `since ${instantWords(signedInAt)}`, seenAt && `last seen ${instantWords(seenAt)}`, address && `from ${address}`]
    .filter(Boolean)
    .join(', ');
