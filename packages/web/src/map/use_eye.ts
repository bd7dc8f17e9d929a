import { type PointerEvent, type RefObject, useEffect, useRef, useState } from 'react';
import { centredEye, type Eye, fittedEye, movedEye, zoomedEye } from './eye';

const AT_FIRST: Eye = { x: 0, y: 0, scale: 1 };

const sizeOf = (
  svg: RefObject<SVGSVGElement | null>,
): { readonly width: number; readonly height: number } => ({
  width: svg.current!.clientWidth,
  height: svg.current!.clientHeight,
});

/**
 * What is seen of a drawing, and how one moves about in it: by the wheel, by dragging and by what is asked for.
 * @param drawing null as long as it is not there; the first is shown whole
 */
export function useEye(
  svg: RefObject<SVGSVGElement | null>,
  drawing: { readonly width: number; readonly height: number } | null,
) {
  const [eye, setEye] = useState<Eye | null>(null);
  const drag = useRef<{ readonly x: number; readonly y: number; readonly eye: Eye } | null>(null);
  const shown = eye ?? AT_FIRST;
  const fit = (): void => {
    if (drawing) setEye(fittedEye(drawing, sizeOf(svg)));
  };
  useEffect(() => {
    if (!eye && svg.current) fit();
  }, [drawing, eye]);

  /** Larger or smaller around a point of the window, or its middle. */
  const zoom = (by: number, at?: { readonly x: number; readonly y: number }): void => {
    const { width, height } = sizeOf(svg);
    setEye((now) => zoomedEye(now ?? AT_FIRST, by, at ?? { x: width / 2, y: height / 2 }));
  };
  const lookAt = (point: { readonly x: number; readonly y: number }): void =>
    setEye((now) => centredEye(now ?? AT_FIRST, point, sizeOf(svg)));

  // React listens to the wheel passively; zooming has to keep the page where it is.
  useEffect(() => {
    const element = svg.current!;
    const onWheel = (event: WheelEvent): void => {
      event.preventDefault();
      if (event.ctrlKey || event.metaKey) {
        const { left, top } = element.getBoundingClientRect();
        zoom(event.deltaY < 0 ? 1.15 : 1 / 1.15, { x: event.clientX - left, y: event.clientY - top });
      } else setEye((now) => movedEye(now ?? AT_FIRST, { x: event.deltaX, y: event.deltaY }));
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  });

  const dragging = {
    onPointerDown(event: PointerEvent<SVGSVGElement>) {
      if ((event.target as Element).closest('[role=button]')) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      drag.current = { x: event.clientX, y: event.clientY, eye: shown };
    },
    onPointerMove(event: PointerEvent<SVGSVGElement>) {
      if (!drag.current) return;
      const { x, y, eye: from } = drag.current;
      setEye(movedEye(from, { x: x - event.clientX, y: y - event.clientY }));
    },
    onPointerUp() {
      drag.current = null;
    },
  };
  return { eye: shown, fit, zoom, lookAt, dragging };
}
