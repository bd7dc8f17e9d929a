import type { HeardAnswer, View } from '@tovel/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import styled from 'styled-components';
import { api, comparedUrl } from '../api/client';
import { useProject, useStanding } from '../project/context';
import { color, font } from '../theme/theme';
import { Button, Segments } from '../ui/controls';
import { Empty } from '../ui/Empty';
import { useQueryParam } from '../ui/use_query_param';
import { viewId } from './use_compared';
import { ViewList } from './ViewList';

const Parts = styled.div`
  min-height: 0;
  display: grid;
  grid-template-columns: 216px minmax(0, 1fr) 320px;
  grid-template-rows: minmax(0, 1fr);
`;

const Middle = styled.div`
  min-height: 0;
  overflow: auto;
  padding: 14px;
  outline-offset: -2px;
`;

const Sheet = styled.div`
  position: relative;
  margin: 0 auto;
  background: white;
  border: 1px solid ${color.fieldRule};
  img,
  svg {
    display: block;
    width: 100%;
  }
  svg {
    position: absolute;
    inset: 0;
    height: 100%;
  }
`;

const Side = styled.aside`
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  border-left: 1px solid ${color.rule};
  background: ${color.side};
`;

const Head = styled.header`
  display: grid;
  gap: 8px;
  padding: 10px 16px 8px;
  border-bottom: 1px solid ${color.ink};
  p {
    font-size: 12px;
    color: ${color.ink2};
  }
`;

const Rows = styled.ol`
  min-height: 0;
  overflow: auto;
  margin: 0;
  padding: 0 0 16px;
  list-style: none;
`;

const Row = styled(Button)`
  display: grid;
  grid-template-columns: 26px minmax(0, 1fr) auto;
  gap: 0 8px;
  width: 100%;
  padding: 6px 16px;
  border: 0;
  border-bottom: 1px solid ${color.rule};
  background: none;
  text-align: left;
  font-weight: 400;
  span {
    overflow-wrap: anywhere;
  }
  i {
    font: 600 12px/1.5 ${font.code};
    font-variant-numeric: tabular-nums;
  }
  small {
    font-size: 11px;
    color: ${color.ink2};
  }
  &[data-hovered] {
    background: ${color.lakeTint};
  }
  &[aria-pressed='true'] {
    background: ${color.ink};
    color: ${color.onInk};
    small {
      color: ${color.onInk2};
    }
  }
`;

const KINDS = [
  { id: 'problems', label: 'Problems' },
  { id: 'keys', label: 'Tab key' },
  { id: 'outline', label: 'Outline' },
] as const;
type Kind = (typeof KINDS)[number]['id'];

type Box = HeardAnswer['stops'][number]['box'];

/** Something that is told beside the picture, and where on it that is. */
interface Told {
  readonly id: string;
  readonly mark: string;
  readonly says: string;
  readonly note: string;
  readonly boxes: readonly Box[];
  readonly isBad: boolean;
}

const WEIGHTS = { critical: '!!', serious: '!', moderate: '·', minor: '·' } as const;

function toldOf(heard: HeardAnswer, kind: Kind): readonly Told[] {
  if (kind === 'keys')
    return heard.stops.map(({ name, role, isSeen, box }, i) => ({
      id: `stop ${i}`,
      mark: String(i + 1),
      says: name || 'says nothing',
      note: isSeen ? role : `${role}, focus not seen`,
      boxes: [box],
      isBad: !name || !isSeen,
    }));
  if (kind === 'outline')
    return [
      ...heard.landmarks.map(({ role, name, box }, i) => ({
        id: `landmark ${i}`,
        mark: '▭',
        says: name ? `${role} “${name}”` : role,
        note: 'landmark',
        boxes: [box],
        isBad: false,
      })),
      ...heard.headings.map(({ level, says, box }, i) => ({
        id: `heading ${i}`,
        mark: `h${level}`,
        says: `${' '.repeat(2 * (level - 1))}${says || 'says nothing'}`,
        note: '',
        boxes: [box],
        isBad: !says,
      })),
    ];
  return heard.findings.map(({ id, weight, says, places }) => ({
    id,
    mark: WEIGHTS[weight],
    says,
    note: `${weight}, ${places.length} ${places.length === 1 ? 'place' : 'places'}`,
    boxes: places.map(({ box }) => box),
    isBad: weight === 'critical' || weight === 'serious',
  }));
}

/** What screens are to those who hear them, or go through them by keys. */
export function HeardScreens({
  views,
  view,
  onView,
}: {
  views: readonly View[];
  view: View;
  onView: (view: View) => void;
}) {
  const { id } = useProject();
  const { savedAt } = useStanding();
  const [asked, setKind] = useQueryParam('heard', 'problems');
  const kind = KINDS.find((one) => one.id === asked)?.id ?? 'problems';
  const { data, error, refetch } = useQuery<HeardAnswer>({
    queryKey: ['heard', id, view.screen, view.width, savedAt],
    queryFn: ({ signal }) => api.listen(id, view.screen, view.width, signal),
    staleTime: Infinity,
    retry: false,
    // What was heard before a step stands until it is listened to again.
    placeholderData: (before, query) =>
      query?.queryKey[2] === view.screen && query.queryKey[3] === view.width ? before : undefined,
  });
  return (
    <Parts>
      <ViewList
        views={views}
        selected={view}
        noteOf={(one) => (viewId(one) === viewId(view) && data ? countOf(data) : ['', ''])}
        onSelect={onView}
      />
      {data ? (
        <Heard key={viewId(view)} heard={data} kind={kind} onKind={setKind} />
      ) : error ? (
        <Empty title="This screen could not be listened to" text={error.message}>
          <Button onPress={() => void refetch()}>Try again</Button>
        </Empty>
      ) : (
        <Empty
          title="Listening …"
          text="A browser goes through the running screen by the Tab key, and rules of accessibility are held against it."
        />
      )}
    </Parts>
  );
}

const countOf = ({ findings }: HeardAnswer): readonly [string, string] => [
  findings.length ? `${findings.length} ✕` : '✓',
  findings.length ? `${findings.length} problems` : 'no problems',
];

function Heard({ heard, kind, onKind }: { heard: HeardAnswer; kind: Kind; onKind: (kind: Kind) => void }) {
  const [chosen, setChosen] = useState<string | null>(null);
  const told = toldOf(heard, kind);
  const shown = told.filter(({ id }) => chosen === null || id === chosen || kind === 'keys');
  return (
    <>
      <Middle tabIndex={0} role="region" aria-label="The running screen">
        <Sheet style={{ maxWidth: heard.width }}>
          <img src={comparedUrl(heard.picture)} alt="The running screen" />
          <Marks heard={heard} told={shown} chosen={chosen} isWay={kind === 'keys'} />
        </Sheet>
      </Middle>
      <Side aria-label="What is read out">
        <Head>
          <Segments role="group" aria-label="What is told">
            {KINDS.map(({ id, label }) => (
              <Button
                key={id}
                aria-pressed={kind === id}
                onPress={() => {
                  setChosen(null);
                  onKind(id);
                }}
              >
                {label}
              </Button>
            ))}
          </Segments>
          <p role="status">{summaryOf(heard, kind)}</p>
        </Head>
        <Rows>
          {told.map(({ id, mark, says, note }) => (
            <li key={id}>
              <Row
                aria-pressed={chosen === id}
                onPress={() => setChosen(chosen === id ? null : id)}
                aria-label={[mark, says.trim(), note].filter(Boolean).join(', ')}
              >
                <i>{mark}</i>
                <span style={{ whiteSpace: 'pre-wrap' }}>{says}</span>
                <small>{note}</small>
              </Row>
            </li>
          ))}
        </Rows>
      </Side>
    </>
  );
}

function summaryOf({ findings, stops, headings, landmarks }: HeardAnswer, kind: Kind): string {
  if (kind === 'keys')
    return stops.length
      ? `The Tab key stops ${stops.length} times, in this order.`
      : 'The Tab key comes to nothing on this screen.';
  if (kind === 'outline')
    return `${landmarks.length} landmarks, ${headings.length} headings: how one finds one’s way by ear.`;
  return findings.length
    ? 'Rules of axe-core, the order of the keys, headings, and contrast with focus and pointer.'
    : 'Nothing was found. That says little of how well it can be used; go through it by ear, too.';
}

/** Px of the page at least for marks to be seen on a wide one that is shown small. */
const MARK = 11;

/** Where things are on the picture: boxes, or the way of the Tab key from stop to stop. */
function Marks({
  heard: { width, height },
  told,
  chosen,
  isWay,
}: {
  heard: Pick<HeardAnswer, 'width' | 'height'>;
  told: readonly Told[];
  chosen: string | null;
  isWay: boolean;
}) {
  const scale = Math.max(1, width / 640);
  const points = isWay ? told.flatMap(({ boxes: [box] }) => (box ? [[box.x, box.y] as const] : [])) : [];
  return (
    <svg viewBox={`0 0 ${width} ${height}`} preserveAspectRatio="xMinYMin meet" aria-hidden="true">
      {told.flatMap(({ id, boxes, isBad }) =>
        boxes.map((box, i) => (
          <rect
            key={`${id} ${i}`}
            x={box.x}
            y={box.y}
            width={Math.max(2, box.width)}
            height={Math.max(2, box.height)}
            fill="none"
            stroke={isBad ? color.red : color.lake}
            strokeWidth={(chosen === id ? 3 : 1.5) * scale}
          />
        )),
      )}
      {points.length > 1 && (
        <polyline
          points={points.map((point) => point.join(',')).join(' ')}
          fill="none"
          stroke={color.lake}
          strokeWidth={1.5 * scale}
          strokeDasharray={`${5 * scale} ${3 * scale}`}
        />
      )}
      {isWay &&
        told.map(({ id, mark, boxes: [box], isBad }) => (
          <g key={id} transform={`translate(${box.x} ${box.y})`}>
            <circle r={MARK * scale * (chosen === id ? 1.3 : 1)} fill={isBad ? color.red : color.lake} />
            <text
              textAnchor="middle"
              dominantBaseline="central"
              fontSize={11 * scale}
              fontWeight={650}
              fill={color.sheet}
            >
              {mark}
            </text>
          </g>
        ))}
    </svg>
  );
}
