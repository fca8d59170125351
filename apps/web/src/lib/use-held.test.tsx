import { act, renderHook } from '@testing-library/react';
import { useHeld } from './use-held';

describe('a value that is held', () => {
  const held = (first: readonly number[]) => renderHook(({ told }) => useHeld(told), { initialProps: { told: first } });

  it('is shown until what the server tells has followed, whatever it tells then', () => {
    const { result, rerender } = held([1]);
    act(() => result.current[1]([1, 2]));
    expect(result.current[0]).toEqual([1, 2]);
    rerender({ told: [1] }); // read anew before the write was seen
    expect(result.current[0]).toEqual([1, 2]);
    rerender({ told: [1, 2, 3] }); // somebody else ticked too
    expect(result.current[0]).toEqual([1, 2, 3]);
    rerender({ told: [1] });
    expect(result.current[0]).toEqual([1]);
  });

  it('is let go where the write was refused', () => {
    const { result } = held([1]);
    act(() => result.current[1]([]));
    expect(result.current[0]).toEqual([]);
    act(() => result.current[1](undefined));
    expect(result.current[0]).toEqual([1]);
  });
});
