import { connect, type Socket } from 'node:net';
import { makeTestDatabase } from '../../../test-support/database.js';
import { createServer } from '../../server.js';

describe('a stop', () => {
  it('waits for what is being answered, and for no connection over which nothing was asked', async () => {
    const database = await makeTestDatabase();
    const server = await createServer(database.config);
    await server.listen(0, '127.0.0.1');
    const port = Number(new URL(await server.getUrl()).port);
    const open = () =>
      new Promise<Socket>(
        (resolve) =>
          void connect(port, '127.0.0.1', function (this: Socket) {
            resolve(this);
          }),
      );
    const ended = (socket: Socket) =>
      new Promise<string>((resolve) => {
        let said = '';
        socket.on('data', (bytes: Buffer) => (said += bytes.toString()));
        socket.on('close', () => resolve(said));
      });
    const [quiet, asking] = [await open(), await open()];
    const [fromQuiet, fromAsking] = [ended(quiet), ended(asking)];
    const body = JSON.stringify({ email: 'nobody@agency.test', password: 'guess' });
    asking.write(
      `POST /api/session HTTP/1.1\r\nHost: x\r\nContent-Type: application/json\r\nContent-Length: ${body.length}\r\n\r\n${body.slice(0, 9)}`,
    );
    await new Promise((resolve) => setTimeout(resolve, 200)); // it has begun to be read
    const closed = server.close();
    expect(await Promise.race([fromAsking, new Promise((resolve) => setTimeout(resolve, 400, 'still open'))])).toBe('still open');
    asking.write(body.slice(9));
    expect(await fromAsking).toContain('401 Unauthorized');
    expect(await fromQuiet).toBe('');
    await closed;
    await database.drop();
  });
});
