import type { FailedJob } from '../../core/jobs/api';
import { post } from '../api/client';
import { words } from '../words';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { LIST_MS, useFetched } from './queries';
import { useAction } from '../ui/useAsync';

const t = words('jobs', {
  jobsTitle: 'Background work that failed',
  jobsText: 'Each task was tried five times. Nothing is lost: remove the cause, then run the task again.',
  'job score': 'Automatic marking of script {{about}}',
  'job settle': 'Closing of script {{about}}',
  'job pages': 'Pages of script {{about}}',
  'job rescore': 'Marking {{about}} again',
  'job allocate': 'Allocating the marking of {{about}}',
  'job announce-results': 'E-mails about the results of {{about}}',
  'job pack': 'Marking packs of {{about}}',
  'job print-result': 'Printing of the result of {{about}}',
  'job send-letter': 'E-mail to {{about}}',
  'job end-file-use': 'Deletion of a file',
  jobOther: '{{kind}} {{about}}',
  jobAgain: 'Run again',
});

const NAMED = [
  'score',
  'settle',
  'pages',
  'rescore',
  'allocate',
  'announce-results',
  'pack',
  'print-result',
  'send-letter',
  'end-file-use',
] as const;

const titleOf = ({ kind, about }: FailedJob) => {
  const known = NAMED.find((name) => name === kind);
  return known ? t(`job ${known}`, { about }) : t('jobOther', { kind, about });
};

/** Background work that was given up, with what went wrong; shown wherever staff can do something about it. */
export function FailedJobs() {
  const [loaded, , replace] = useFetched<FailedJob[]>('/jobs/failed', undefined, LIST_MS);
  const { busy, trouble, run } = useAction();
  if (loaded.state !== 'here' || loaded.value.length === 0) return null;
  const again = (id: number) => run(async () => replace(await post<FailedJob[]>(`/jobs/${id}/run-again`)));
  return (
    <section className="mb-4 rounded-card border border-brick/40 bg-card p-5">
      <h2 className="font-semibold">{t('jobsTitle')}</h2>
      <p className="text-[0.92rem] text-soft">{t('jobsText')}</p>
      <ul className="mt-2">
        {loaded.value.map((job) => (
          <li key={job.id} className="flex flex-wrap items-center gap-3 border-t border-line/70 py-2">
            <span className="min-w-0 flex-1">
              <b>{titleOf(job)}</b>
              <span className="block truncate text-[0.85rem] text-soft">{job.trouble}</span>
            </span>
            <Button disabled={busy} onClick={() => void again(job.id)}>
              {t('jobAgain')}
            </Button>
          </li>
        ))}
      </ul>
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
    </section>
  );
}
