import { takeRoomToken } from './room-token';

describe('the token of a room that comes with a form', () => {
  const go = (address: string) => window.history.replaceState(null, '', address);
  afterEach(() => sessionStorage.clear());

  it('is taken out of the address, and known after a reload of the same form alone', () => {
    go('/ask/form-a?embedded#room=secret');
    expect(takeRoomToken('form-a')).toBe('secret');
    expect(window.location.pathname + window.location.search + window.location.hash).toBe('/ask/form-a?embedded');
    expect(takeRoomToken('form-a')).toBe('secret');
    expect(takeRoomToken('form-b')).toBeNull();
  });

  it('is known until a reload where nothing can be kept', () => {
    const refused = jest.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new Error('not allowed');
    });
    go('/ask/form-a#room=secret');
    expect(takeRoomToken('form-a')).toBe('secret');
    expect(window.location.hash).toBe('');
    refused.mockRestore();
    expect(takeRoomToken('form-a')).toBeNull();
  });
});
