import net from 'node:net';
import { readConfig, withFreePorts } from './config.ts';

const listening: net.Server[] = [];
const take = (port: number): Promise<number> =>
  new Promise((resolve) => {
    const server = net.createServer().listen(port, '127.0.0.1', () => {
      resolve((server.address() as net.AddressInfo).port);
    });
    listening.push(server);
  });
const free = async (): Promise<number> => {
  const port = await take(0);
  await new Promise((resolve) => listening.pop()!.close(resolve));
  return port;
};

afterEach(async () => {
  for (const server of listening.splice(0)) await new Promise((resolve) => server.close(resolve));
});

test('a port that follows from the first gives way to the next that is free, and links to it follow', async () => {
  const port = await free();
  const taken = port + 2;
  await take(taken);
  const config = await withFreePorts(readConfig({ TOVEL_PORT: String(port) }), {});
  const { runPort, designPort, repositoryPort } = config;
  expect(config.port).toBe(port);
  expect(designPort).not.toBe(taken);
  expect(new Set([port, runPort, designPort, repositoryPort]).size).toBe(4);
  expect(config.allowedHosts).toEqual([`127.0.0.1:${designPort}`]);
});

test('none stays none', async () => {
  const env = { TOVEL_PORT: String(await free()), TOVEL_DESIGN_PORT: 'none', TOVEL_REPOSITORY_PORT: 'none' };
  const config = await withFreePorts(readConfig(env), env);
  expect([config.designPort, config.repositoryPort, config.allowedHosts]).toEqual([null, null, []]);
});

test.each(['TOVEL_PORT', 'TOVEL_RUN_PORT', 'TOVEL_REPOSITORY_PORT'])(
  '%s that somebody named and that is taken is said, with what to do',
  async (variable) => {
    const env = { TOVEL_PORT: String(await free()), [variable]: String(await take(0)) };
    await expect(withFreePorts(readConfig(env), env)).rejects.toThrow(
      new RegExp(`Port ${env[variable]} is taken.*${variable}=`),
    );
  },
);

test.each(['0', '65536', 'near', '1.5'])('%s is no port', (port) => {
  expect(() => readConfig({ TOVEL_PORT: port })).toThrow(/TOVEL_PORT must be a port number from 1 to 65535/);
});
