import { type Attention, attentionOn } from '@tovel/core';
import { expose } from 'comlink';

/** Px that pictures are looked at in: what is finer draws nobody. */
const WIDTH = 512;

/** Works out where pictures draw the eye, away from the interface. */
const attention = {
  /** @param height px of the picture that one sees at first; what is below comes later */
  async on(address: string, height: number): Promise<SeenAttention> {
    const response = await fetch(address);
    if (!response.ok) throw new Error('The picture is not kept any more. Compare again.');
    const whole = await createImageBitmap(await response.blob());
    const seen = { width: whole.width, height: Math.min(whole.height, height) };
    const scale = Math.min(1, WIDTH / seen.width);
    const [w, h] = [seen.width, seen.height].map((side) => Math.max(16, Math.round(side * scale)));
    const context = new OffscreenCanvas(w, h).getContext('2d', { willReadFrequently: true });
    if (!context) throw new Error('This browser draws no pictures in the background.');
    context.drawImage(whole, 0, 0, seen.width, seen.height, 0, 0, w, h);
    const found = attentionOn(context.getImageData(0, 0, w, h).data, w, h);
    return {
      ...found,
      path: found.path.map(({ x, y }) => ({ x: (x / w) * seen.width, y: (y / h) * seen.height })),
      seen,
    };
  },
};

/** Attention with its path in px of the picture, and how much of that was looked at. */
export type SeenAttention = Attention & {
  readonly seen: { readonly width: number; readonly height: number };
};

export type AttentionWorker = typeof attention;

expose(attention);
