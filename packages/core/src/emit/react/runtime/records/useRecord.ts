import { useParams } from 'react-router';
import type { Kept, Records } from './records';
import { useRecords } from './useRecords';

/** The record whose id a parameter of the address says; nothing where there is none. */
export function useRecord<T extends Kept>(records: Records<T>, parameter: string): T | undefined {
  const id = useParams()[parameter];
  return useRecords(records).find((record) => record.id === id);
}
