import { CornerDownLeft } from 'lucide-react';
import { RadioGroup } from 'radix-ui';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { GapData, Settlement, SideMark } from '../../core/marking/api';
import { givenAgain, marksGiven, type MarksGiven } from '../../core/marking/marksGiven';
import { showMarks, sumMarks } from '../../core/marks';
import { get, post } from '../api/client';
import { readings } from '../kinds/readings';
import { useFetched } from '../staff/queries';
import { Button } from '../ui/Button';
import { NotHere } from '../ui/NotHere';
import { LongText } from '../ui/LongText';
import { Notice } from '../ui/Notice';
import { Pill } from '../ui/Pill';
import { useAction } from '../ui/useAsync';
import { LeadScriptView } from './LeadScriptView';
import { RubricPanel } from './RubricPanel';
import { SideTable } from './SideTable';
import { t } from './words';
import { PageHeading } from '../ui/PageHeading';

const totalOf = ({ given }: SideMark) => sumMarks(given.map((mark) => mark.hundredths));

function Sides({ data }: { readonly data: GapData }) {
  const heads = [t('firstMark'), t('secondMark')];
  return (
    <SideTable
      components={data.components}
      sides={data.sides.map((side, i) => ({ ...side, head: heads[i]! }))}
    />
  );
}

const WAYS = ['first', 'second', 'mean', 'criteria'] as const;
type Way = (typeof WAYS)[number];

function Decision({ data, onSettled }: { readonly data: GapData; readonly onSettled: () => void }) {
  const [way, setWay] = useState<Way>('criteria');
  const [a, b] = data.sides;
  // What both gave alike is decided already.
  const same = a!.given.filter(
    (mark) => b!.given.find(({ component }) => component === mark.component)?.hundredths === mark.hundredths,
  );
  const alike = new Set(same.map(({ component }) => component));
  const [given, setGiven] = useState<MarksGiven>(() => givenAgain(data.components, same));
  const [reason, setReason] = useState('');
  const [comment, setComment] = useState('');
  const { busy, trouble, run } = useAction();
  const [first, second] = data.sides.map(totalOf);
  const own = marksGiven(data.components, given);
  const totals: Record<Way, number | null> = {
    first: first!,
    second: second!,
    mean: Math.floor((first! + second!) / 2 + 0.5),
    criteria: own.missing.length === 0 ? sumMarks(own.marks.map((mark) => mark.hundredths)) : null,
  };
  const total = totals[way];
  const ready = total !== null && reason.trim().length > 1 && !busy;
  const settle = () =>
    run(async () => {
      const body: Settlement = { given: way === 'criteria' ? given : way, comment, reason: reason.trim() };
      await post(`/marking/rounds/${data.round}/gaps/${data.id}`, body);
      onSettled();
    });
  return (
    <>
      <h2 className="mt-4 mb-1.5 font-semibold">{t('decision')}</h2>
      <RadioGroup.Root
        aria-label={t('decision')}
        value={way}
        onValueChange={(one) => setWay(one as Way)}
        className="flex flex-wrap gap-2"
      >
        {WAYS.map((one) => (
          <RadioGroup.Item
            key={one}
            value={one}
            className={`min-h-10 rounded-control border px-3 ${way === one ? 'border-kelp bg-kelp font-semibold text-on' : 'border-line bg-card hover:border-edge'}`}
          >
            {t(`way ${one}`, { marks: showMarks(totals.mean ?? 0) })}
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
      {way === 'criteria' && (
        <div className="mt-3">
          <RubricPanel
            components={data.components.filter((one) => !alike.has(one.key))}
            given={given}
            active={null}
            typed=""
            onActive={() => undefined}
            onGive={(key, value) => {
              const { [key]: _, ...others } = given;
              setGiven(value === undefined ? others : { ...others, [key]: value });
            }}
          />
        </div>
      )}
      <LongText label={t('settleReason')} value={reason} onChange={setReason} className="mt-3" />
      <LongText
        label={t('settleComment')}
        value={comment}
        onChange={setComment}
        most={4000}
        className="mt-2"
      />
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
      <div className="mt-3 flex items-center justify-between gap-3">
        <p role="status" className="text-soft">
          <b className="text-[1.5rem] text-ink">{total === null ? '–' : showMarks(total)}</b>{' '}
          {t('total', { all: showMarks(sumMarks(data.components.map((c) => c.of))) })}
        </p>
        <Button look="first" disabled={!ready} onClick={() => void settle()}>
          {t('settle')} <CornerDownLeft aria-hidden className="size-4" />
        </Button>
      </div>
    </>
  );
}

/** A gap: both marks and both sets of notes side by side, settled with a reason. */
export function SettlePage() {
  const { round = '', gap = '' } = useParams();
  const path = `/marking/rounds/${round}/gaps/${gap}`;
  const navigate = useNavigate();
  const [loaded] = useFetched(path, async () => {
    const data = await get<GapData>(path);
    await readings.load([data.kind]);
    return data;
  });
  if (loaded.state !== 'here') return <NotHere of={loaded} />;
  const data = loaded.value;
  const [first, second] = data.sides.map(totalOf);
  const settled = () =>
    void navigate(
      data.next === null ? `/staff/quality/${round}/${data.target}` : `/staff/gaps/${round}/${data.next}`,
    );
  return (
    <main className="flex min-w-0 flex-1 flex-col">
      <header className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line px-6 py-2.5">
        <PageHeading className="font-semibold">{data.title}</PageHeading>
        <Pill tone="care">
          {t('gapOf', { marks: showMarks(Math.abs(first! - second!)), tolerance: showMarks(data.tolerance) })}
        </Pill>
        <p className="text-soft">{t('gapPlace', { script: data.script, place: data.place, of: data.of })}</p>
      </header>
      <div className="flex min-h-0 flex-1">
        <LeadScriptView key={data.id} data={data} />
        <aside
          aria-label={t('decision')}
          className="w-[29rem] flex-none overflow-y-auto border-l border-line px-5 py-4"
        >
          <Sides data={data} />
          <Decision key={data.id} data={data} onSettled={settled} />
        </aside>
      </div>
    </main>
  );
}
