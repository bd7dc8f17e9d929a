import { queryClient } from '../api/queryClient';

/** Asks once more for all that is shown and came over the network. */
export const askAnew = (): void => void queryClient.invalidateQueries();
