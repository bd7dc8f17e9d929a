import { TextDecoder, TextEncoder } from 'node:util';

// The simulated window lacks what every browser has.
Object.assign(globalThis, { TextDecoder, TextEncoder, IS_REACT_ACT_ENVIRONMENT: true });
if (!globalThis.CSS)
  Object.assign(globalThis, { CSS: { escape: (text: string) => text.replace(/[^\w-]/g, (c) => `\\${c}`) } });
