import type { MenuAction } from '../ui/ActionMenu';
import { CopySheet } from './CopySheet';
import { OverlaySheet } from './OverlaySheet';
import { ProposalsSheet } from './ProposalsSheet';
import { TypedSheet } from './TypedSheet';
import type { useOpenLinks } from './use_open_links';
import { WordsSheet } from './WordsSheet';

export type OpenSheet = 'typed' | 'copy' | 'overlay' | 'proposals' | 'words';

/** What can be done with all lines of a screen. */
export const junctionMenu = (
  isOverlay: boolean,
  { open, wireWhole }: { readonly open: (sheet: OpenSheet) => void; readonly wireWhole: () => void },
): MenuAction[] => [
  { id: 'typed', label: 'Type it, line by line …', act: () => open('typed') },
  { id: 'copy', label: 'Copy it from another screen …', act: () => open('copy') },
  { id: 'proposals', label: 'All that is proposed …', act: () => open('proposals') },
  { id: 'words', label: 'Words that mean the same …', act: () => open('words') },
  { id: 'whole', label: 'Something the whole screen does', act: wireWhole },
  {
    id: 'overlay',
    label: isOverlay ? 'How this overlay opens and closes …' : 'Make it an overlay …',
    act: () => open('overlay'),
  },
];

interface JunctionSheetsProps {
  sheet: OpenSheet | null;
  screenKey: string;
  proposals: ReturnType<typeof useOpenLinks>;
  onClose: () => void;
}

/** What is open over the junction. */
export function JunctionSheets({ sheet, screenKey, proposals, onClose }: JunctionSheetsProps) {
  switch (sheet) {
    case 'typed':
      return <TypedSheet screen={screenKey} onClose={onClose} />;
    case 'copy':
      return <CopySheet screen={screenKey} onClose={onClose} />;
    case 'proposals':
      return <ProposalsSheet proposals={proposals} onClose={onClose} />;
    case 'words':
      return <WordsSheet onClose={onClose} />;
    case 'overlay':
      return <OverlaySheet screen={screenKey} onClose={onClose} />;
    default:
      return null;
  }
}
