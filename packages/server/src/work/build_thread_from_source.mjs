// The builds as they are, for a server that runs from its source; the bundle has them compiled beside it.
import { register } from 'tsx/esm/api';

register();
await import('../run/build_thread.ts');
