import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdir } from 'node:fs/promises';
import http from 'node:http';
import path from 'node:path';
import { simpleGit } from 'simple-git';

/** The password that the repositories which Tovel ships want; they are there to try things out, on this machine alone. */
export const HOST_TOKEN = 'mossgate';

/**
 * A stand-in for the place where a team keeps its code: repositories in a folder, served by git itself (`git http-backend`).
 * Whoever asks for one that is not there yet gets it, empty.
 */
export function createRepositoryHost(folder: string): http.Server {
  return http.createServer((request, response) => {
    void answer(folder, request, response).catch((error: Error) => {
      if (!response.headersSent) response.writeHead(500, { 'content-type': 'text/plain; charset=utf-8' });
      response.end(error.message);
    });
  });
}

async function answer(
  folder: string,
  request: http.IncomingMessage,
  response: http.ServerResponse,
): Promise<void> {
  const url = new URL(request.url ?? '/', 'http://host');
  const [, name] = /^\/([a-z0-9][a-z0-9-]{0,60})\.git(?=\/)/.exec(url.pathname) ?? [];
  const say = (status: number, text: string, headers: Record<string, string> = {}): void => {
    response.writeHead(status, { 'content-type': 'text/plain; charset=utf-8', ...headers });
    response.end(`${text}\n`);
  };
  // A page in a browser cannot make one ask here.
  if (!/^(127\.0\.0\.1|localhost)(:\d+)?$/.test(request.headers.host ?? '') || request.headers.origin)
    return say(403, 'Only git is answered, and only on this machine.');
  if (!name) return say(404, 'Repositories are at /NAME.git, with small letters, digits and dashes.');
  const [, given] = /^Basic (.+)$/.exec(request.headers.authorization ?? '') ?? [];
  if (
    given === undefined ||
    Buffer.from(given, 'base64').toString().split(':').slice(1).join(':') !== HOST_TOKEN
  )
    return say(401, 'A token is wanted.', { 'www-authenticate': 'Basic realm="repositories"' });

  const repository = path.join(folder, `${name}.git`);
  if (!existsSync(path.join(repository, 'HEAD'))) {
    await mkdir(repository, { recursive: true });
    const git = simpleGit({ baseDir: repository });
    await git.raw(['init', '--quiet', '--bare', '--initial-branch', 'main']);
    await git.raw(['config', 'http.receivepack', 'true']);
  }
  const backend = spawn('git', ['http-backend'], {
    env: {
      PATH: process.env.PATH,
      GIT_PROJECT_ROOT: folder,
      GIT_HTTP_EXPORT_ALL: '1',
      PATH_INFO: url.pathname,
      QUERY_STRING: url.search.slice(1),
      REQUEST_METHOD: request.method,
      CONTENT_TYPE: request.headers['content-type'] ?? '',
      CONTENT_LENGTH: request.headers['content-length'] ?? '',
      HTTP_CONTENT_ENCODING: request.headers['content-encoding'] ?? '',
      GIT_PROTOCOL: String(request.headers['git-protocol'] ?? ''),
      REMOTE_USER: 'team',
      REMOTE_ADDR: '127.0.0.1',
    },
  });
  response.on('close', () => backend.kill());
  backend.on('error', (error) => say(500, error.message));
  backend.stdin.on('error', () => undefined);
  request.pipe(backend.stdin);
  let head = Buffer.alloc(0);
  for await (const chunk of backend.stdout) {
    if (response.headersSent) {
      response.write(chunk);
      continue;
    }
    head = Buffer.concat([head, chunk as Buffer]);
    const end = head.indexOf('\r\n\r\n');
    if (end < 0) continue;
    const fields = head
      .subarray(0, end)
      .toString()
      .split('\r\n')
      .map((line) => line.split(/: (.*)/s));
    const status = fields.find(([field]) => field.toLowerCase() === 'status')?.[1];
    response.writeHead(
      status === undefined ? 200 : parseInt(status),
      Object.fromEntries(
        fields.filter(([field]) => field.toLowerCase() !== 'status').map(([field, value]) => [field, value]),
      ),
    );
    response.write(head.subarray(end + 4));
  }
  response.end();
}
