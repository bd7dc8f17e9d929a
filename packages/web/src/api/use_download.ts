import { useMutation, useQueryClient } from '@tanstack/react-query';
import { saveBlob } from '../ui/save_file';
import { api } from './client';

/** Fetches files that the server makes and hands them to the browser; where one cannot be made, that is said in place. */
export function useDownload(): {
  readonly download: (address: string) => void;
  readonly isBusy: boolean;
  readonly problem: string | null;
} {
  const queries = useQueryClient();
  const { mutate, isPending, error } = useMutation({
    mutationFn: api.file,
    onSuccess: ({ name, bytes }) => {
      saveBlob(name, bytes);
      // Code that is handed over is kept in mind.
      void queries.invalidateQueries({ queryKey: ['deliveries'] });
    },
  });
  return { download: mutate, isBusy: isPending, problem: error?.message ?? null };
}
