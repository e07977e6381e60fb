import { FileDown } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import type { StaffSheet } from '../../core/results/api';
import type { ResultSheet } from '../../core/results/resultSheet';
import type { StaffMember } from '../../core/rounds/api';
import { showMarks } from '../../core/marks';
import { get, post } from '../api/client';
import { Files, staffFiles } from '../media/fileSource';
import { PageSourceContext, pagesOfResult } from '../pages/pageSource';
import { useFetched } from '../staff/queries';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { StaffPage } from '../ui/StaffPage';
import { showDay } from '../ui/times';
import { useAction } from '../ui/useAsync';
import { OverallRemark } from './OverallRemark';
import { say } from '../words';
import { loadReadings, SheetBody } from './SheetBody';
import { t } from './staffWords';

interface Changeable {
  readonly key: string;
  readonly target: string;
  readonly component: string;
  readonly words: string;
  readonly of: number;
  /** What the mark is now, in hundredths. */
  readonly before: number;
}

const changeableOf = (sheet: ResultSheet): Changeable[] =>
  sheet.questions.flatMap((question) =>
    question.parts.flatMap((part) =>
      part.components.map((component) => {
        const target = `${question.item}/${part.key}`;
        const name = component.name ? say(component.name) : t('wholePart');
        return {
          key: `${target} ${component.key}`,
          target,
          component: component.key,
          of: component.of,
          before: component.hundredths,
          words: t('remarkOption', {
            number: question.number,
            part: question.parts.length > 1 ? part.key : '',
            name,
            marks: showMarks(component.hundredths),
            of: showMarks(component.of),
          }),
        };
      }),
    ),
  );

/** Changes one mark with a reason: of the machine before the sign-off, of anybody after it. */
function Remark({
  data,
  round,
  onDone,
}: {
  readonly data: StaffSheet;
  readonly round: string;
  readonly onDone: () => void;
}) {
  const all = changeableOf(data.sheet);
  const [key, setKey] = useState(all[0]!.key);
  const [marks, setMarks] = useState('');
  const [reason, setReason] = useState('');
  const { busy, trouble, run } = useAction();
  const chosen = all.find((one) => one.key === key) ?? all[0]!;
  const hundredths = Math.round(Number(marks.replace(',', '.')) * 100);
  const possible =
    marks.trim() !== '' && hundredths >= 0 && hundredths <= chosen.of && reason.trim().length > 1;
  const send = () =>
    run(async () => {
      const { target, component } = chosen;
      await post(`/marking/rounds/${round}/remarks`, {
        script: data.script,
        target,
        component,
        before: chosen.before,
        hundredths,
        reason,
      });
      setMarks('');
      setReason('');
      onDone();
    });
  return (
    <details className="mb-4 rounded-card border border-line bg-card px-5 py-3">
      <summary className="font-semibold">{t('remark')}</summary>
      <p className="py-1 text-soft">{t('remarkText')}</p>
      <div className="grid gap-3 desk:grid-cols-[3fr_1fr_3fr]">
        <label className="block">
          {t('remarkWhat')}
          <select
            value={key}
            onChange={(event) => setKey(event.target.value)}
            className="mt-1 block min-h-10 w-full rounded-control border border-edge bg-card px-2"
          >
            {all.map((one) => (
              <option key={one.key} value={one.key}>
                {one.words}
              </option>
            ))}
          </select>
        </label>
        <label className="block">
          {t('remarkMarks', { of: showMarks(chosen.of) })}
          <input
            inputMode="decimal"
            value={marks}
            onChange={(event) => setMarks(event.target.value)}
            className="mt-1 block min-h-10 w-full rounded-control border border-edge bg-card px-3"
          />
        </label>
        <label className="block">
          {t('reason')}
          <input
            value={reason}
            maxLength={1000}
            onChange={(event) => setReason(event.target.value)}
            className="mt-1 block min-h-10 w-full rounded-control border border-edge bg-card px-3"
          />
        </label>
      </div>
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
      <Button disabled={busy || !possible} onClick={() => void send()} className="mt-3">
        {t('remarkAct')}
      </Button>
    </details>
  );
}

/** Who marks has the script's code in place of the candidate, until the sign-off. */
const isBlind = ({ sheet, script }: StaffSheet) => sheet.candidate.name === script;
const nameOn = (data: StaffSheet) =>
  isBlind(data) ? t('scriptAsName', { code: data.script }) : data.sheet.candidate.name;

/** A candidate's sheet as staff see it: everything, whatever candidates of the round are shown. */
export function StaffSheetPage() {
  const { round = '', invitation = '' } = useParams();
  const path = `/rounds/${round}/results/${invitation}`;
  const [me] = useFetched<StaffMember | null>('/me');
  const [loaded, reload] = useFetched(path, async () => {
    const data = await get<StaffSheet>(path);
    await loadReadings(data.sheet);
    return data;
  });
  const pages = useMemo(() => pagesOfResult(path), [path]);
  const roles = me.state === 'here' ? (me.value?.roles ?? []) : [];
  return (
    <StaffPage
      title={loaded.state === 'here' ? nameOn(loaded.value) : t('results')}
      loaded={loaded}
      aside={
        <>
          <Link to={`/staff/results/${round}`} className="text-slate underline underline-offset-4">
            {t('back')}
          </Link>
          {roles.includes('coordinator') && (
            <Link
              to={`/staff/review/${round}/${invitation}`}
              className="text-slate underline underline-offset-4"
            >
              {t('sitting')}
            </Link>
          )}
          <a
            href={`/api${path}/script.pdf`}
            className="inline-flex min-h-10 items-center gap-2 rounded-control border border-line bg-card px-3.5 hover:border-edge"
          >
            <FileDown aria-hidden className="size-4" /> {t('pdf')}
          </a>
        </>
      }
    >
      {(data) => (
        <div className="max-w-[1010px]">
          <p className="mb-3 text-soft">
            {!isBlind(data) && `${data.sheet.candidate.reference} · ${t('script', { code: data.script })} · `}
            {data.sheet.title} · {showDay(data.sheet.satAt, data.sheet.timeZone)}
          </p>
          {roles.includes('lead') && <OverallRemark data={data} round={round} onDone={reload} />}
          {roles.includes('lead') && <Remark data={data} round={round} onDone={reload} />}
          <Files value={staffFiles}>
            <PageSourceContext value={pages}>
              <SheetBody
                sheet={data.sheet}
                provisional={data.sheet.state === 'provisional'}
                remarkFiles={`/api${path}/remark`}
              />
            </PageSourceContext>
          </Files>
        </div>
      )}
    </StaffPage>
  );
}
