import { useCallback } from 'react';
import { post } from '../api/client';
import type { RunAsked } from '../../core/kinds/contract';
import type { EvidenceFound } from '../../core/kinds/evidence';
import type { MarkingScript } from '../../core/marking/api';
import { trials } from '../kinds/readings';
import { useReady } from '../ui/ComponentShelf';
import { useFetched } from '../staff/queries';

/** What was run of an answer, case by case; it can be run again on the server. */
export function RunAgain({ script }: { readonly script: MarkingScript }) {
  const { kind, shown, response, task } = script;
  const [loaded] = useFetched<{ readonly found: unknown }>(`/marking/tasks/${task}/evidence`);
  const onRun = useCallback(
    (asked: RunAsked) => post<EvidenceFound>(`/marking/tasks/${task}/run`, asked),
    [task],
  );
  if (!useReady(trials, kind) || loaded.state !== 'here') return null;
  return (
    <div className="mt-3">{trials.draw(kind, { shown, response, found: loaded.value.found, onRun })}</div>
  );
}
