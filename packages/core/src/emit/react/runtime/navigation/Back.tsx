import type { ButtonHTMLAttributes } from 'react';
import type { Arrival } from './arrival';
import { useGo } from './useGo';

type BackProps = ButtonHTMLAttributes<HTMLButtonElement> & { fallback: string; arrival?: Arrival };

/** A button that goes one step back. */
export function Back({ fallback, arrival, ...props }: BackProps) {
  const go = useGo();
  return <button type="button" {...props} onClick={() => go.back(fallback, arrival)} />;
}
