import { QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { activityKeys, deskKeys } from '../api/production';
import { AS_WRITTEN } from './as-written';
import { useTouched } from './queries';

/** Two queries on the screen, the second of what stands as people wrote it, and how often each was asked for. */
function showBoth() {
  const asked = { days: 0, written: 0 };
  const queries = new QueryClient();
  const wrapper = ({ children }: { children: ReactNode }) => <QueryClientProvider client={queries}>{children}</QueryClientProvider>;
  const { result } = renderHook(
    () => {
      useQuery({ queryKey: deskKeys.of(''), queryFn: () => (asked.days += 1) });
      useQuery({ queryKey: activityKeys.of(''), meta: AS_WRITTEN, queryFn: () => (asked.written += 1) });
      return useTouched();
    },
    { wrapper },
  );
  return { asked, touch: (what?: 'dates') => act(() => result.current(what)) };
}

describe('what is on the screen', () => {
  it('is asked for anew after a change, all of it', async () => {
    const { asked, touch } = showBoth();
    await waitFor(() => expect(asked).toEqual({ days: 1, written: 1 }));
    await touch();
    await waitFor(() => expect(asked).toEqual({ days: 2, written: 2 }));
  });

  it('is asked for anew where days were reckoned, but for what stands as people wrote it', async () => {
    const { asked, touch } = showBoth();
    await waitFor(() => expect(asked).toEqual({ days: 1, written: 1 }));
    await touch('dates');
    await waitFor(() => expect(asked.days).toBe(2));
    await touch('dates');
    await waitFor(() => expect(asked).toEqual({ days: 3, written: 1 }));
  });
});
