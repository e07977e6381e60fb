import { useEffect, useMemo } from 'react';
import type { FileSource } from './fileSource';
import { Recordings } from './recordings';

/** The sound of a page that staff look at; it ends with the page. */
export function useRecordings(files: FileSource): Recordings {
  const recordings = useMemo(() => new Recordings(files), [files]);
  useEffect(() => () => recordings.close(), [recordings]);
  return recordings;
}
