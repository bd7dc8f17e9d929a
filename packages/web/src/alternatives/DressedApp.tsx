import { type ReactNode, useLayoutEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { color } from '../theme/theme';

const Figure = styled.figure`
  min-width: 0;
  display: grid;
  gap: 6px;
  align-content: start;
  figcaption {
    display: flex;
    min-height: 2.6em;
    align-items: end;
    overflow-wrap: anywhere;
    gap: 8px;
  }
  small {
    color: ${color.ink2};
  }
`;

const Window = styled.div`
  position: relative;
  overflow: hidden;
  border: 1px solid ${color.fieldRule};
  background: white;
  iframe {
    position: absolute;
    inset: 0 auto auto 0;
    border: 0;
    transform-origin: 0 0;
  }
`;

const Deeds = styled.div`
  display: flex;
  gap: 6px;
  min-height: 28px;
  color: ${color.ink2};
`;

interface DressedAppProps {
  readonly name: string;
  /** Which file it is, where that is not said by its name. */
  readonly file?: string | undefined;
  readonly src: string;
  /** Of the window that the app is shown in, in px of its own. */
  readonly width: number;
  readonly height: number;
  readonly frame: (frame: HTMLIFrameElement | null) => void;
  readonly children?: ReactNode;
}

/** The running app, drawn as small as there is room for, with what can be done with the look that it wears. */
export function DressedApp({ name, file, src, width, height, frame, children }: DressedAppProps) {
  const window = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState(0);
  useLayoutEffect(() => {
    const watcher = new ResizeObserver(([{ contentRect }]) => setRoom(contentRect.width));
    watcher.observe(window.current!);
    return () => watcher.disconnect();
  }, []);
  const scale = room / width;
  return (
    <Figure aria-label={name}>
      <figcaption>
        <b>{name}</b>
        {file !== undefined && <small>{file}</small>}
      </figcaption>
      <Window ref={window} style={{ height: Math.round(height * scale) || undefined }}>
        {room > 0 && (
          <iframe
            ref={frame}
            title={`The running app, ${name}`}
            src={src}
            loading="lazy"
            sandbox="allow-scripts allow-same-origin allow-forms"
            style={{ width, height, transform: `scale(${scale})` }}
          />
        )}
      </Window>
      <Deeds>{children}</Deeds>
    </Figure>
  );
}
