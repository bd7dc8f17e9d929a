import { expose } from 'comlink';
import { PageReading } from './page_reading';

const reading = new PageReading();

/** What a page that reads does for the application around it. */
const frame = {
  isThere: (): true => true,
  read: reading.read.bind(reading),
};
export type ReaderFrame = typeof frame;

const apps = ['127.0.0.1', 'localhost'].map((host) => `http://${host}:${location.port}`);
addEventListener('message', ({ origin, data, ports: [port] }) => {
  if (apps.includes(origin) && data === 'read' && port) expose(frame, port);
});
