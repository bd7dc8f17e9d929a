import type { Box } from '../../model/design.ts';
import { mapBox } from '../svg/matrix.ts';
import type { PaintedPicture } from './painted_page.ts';

/** Where a picture stands on the page. */
export const boundsOfPicture = ({ matrix }: Pick<PaintedPicture, 'matrix'>): Box =>
  mapBox(matrix, { x: 0, y: 0, width: 1, height: 1 });
