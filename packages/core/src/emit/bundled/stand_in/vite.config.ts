import { defineConfig } from 'vite';
import { standIns } from './plugin';

/** `npm run api`: the stand-ins alone. */
export default defineConfig({ plugins: [standIns()], server: { port: 4010, strictPort: true } });
