import { Camera, Check, Clock3, Database, Globe, Maximize, Mic, Monitor, Wifi } from 'lucide-react';
import { useCallback, useEffect, useEffectEvent, useState, type ReactNode } from 'react';
import type { ArrivalView } from '../../../core/arrival/api';
import type { CheckName, CheckResult } from '../../../core/arrival/checks';
import type { KindName } from '../../../core/kinds/kindNames';
import type { AidName } from '../../../core/kit/aids';
import { post } from '../../api/client';
import { announce } from '../../ui/announce';
import { Button } from '../../ui/Button';
import { Notice } from '../../ui/Notice';
import { Pill, type Tone } from '../../ui/Pill';
import { useAction } from '../../ui/useAsync';
import { useHasVoice } from '../../kit/useHasVoice';
import { useArrival } from '../ArrivalContext';
import { CameraCheck } from '../checks/CameraCheck';
import { SoundCheck } from '../checks/SoundCheck';
import { automaticChecks, type Finding } from '../checks/runChecks';
import { StepTitle } from '../Steps';
import { t } from '../words';

const ICONS: Record<CheckName, typeof Check> = {
  browser: Globe,
  screen: Monitor,
  storage: Database,
  connection: Wifi,
  camera: Camera,
  clock: Clock3,
  sound: Mic,
  'full screen': Maximize,
};
const TONES: Record<CheckResult['outcome'], Tone> = {
  good: 'good',
  'could be better': 'care',
  'not working': 'trouble',
};

const brokenOff = (name: CheckName): Finding => ({
  name,
  outcome: 'not working',
  facts: {},
  words: t('checkBroke'),
  remedy: t('checkBrokeRemedy'),
});

type Findings = Partial<Record<CheckName, Finding>>;

export function useFindings(demanded: readonly CheckName[], kinds: readonly KindName[]) {
  const [findings, setFindings] = useState<Findings>({});
  const put = useCallback((name: CheckName, finding: Finding | null) => {
    setFindings((all) => {
      const { [name]: _, ...rest } = all;
      return finding ? { ...rest, [name]: finding } : rest;
    });
  }, []);
  const rerun = useCallback(
    async (name: CheckName) => {
      const check = automaticChecks[name];
      if (!check) return;
      put(name, null);
      try {
        put(name, await check(kinds));
      } catch {
        // One that breaks off, as the clock's without a connection, must not keep the others from running.
        put(name, brokenOff(name));
      }
    },
    [put, kinds],
  );
  useEffect(() => {
    const runAll = async () => {
      for (const name of demanded) await rerun(name);
    };
    void runAll();
  }, [demanded, rerun]);
  return { findings, put, rerun };
}

interface RowProps {
  readonly name: CheckName;
  readonly finding: Finding | undefined;
  readonly onAgain: (() => void) | null;
  readonly children?: ReactNode;
}

function CheckRow({ name, finding, onAgain, children }: RowProps) {
  const Icon = ICONS[name];
  const heard =
    finding && t('checkHeard', { check: t(name), outcome: t(finding.outcome), words: finding.words });
  const outcome = finding?.outcome;
  const say = useEffectEvent(() => heard && announce(heard));
  useEffect(() => {
    // By outcome: a camera that goes on measuring is not heard with every figure.
    if (outcome) say();
  }, [outcome]);
  const remedy = finding && finding.outcome !== 'good' ? finding.remedy : null;
  return (
    <li className="border-b border-line px-4 last:border-0">
      <div className="grid grid-cols-[1.6rem_minmax(0,1fr)] items-center gap-x-3 py-3.5 desk:grid-cols-[1.6rem_8rem_1fr_auto]">
        <Icon aria-hidden className="size-5 text-soft" />
        {/* In a narrow window the outcome stands beside the name, or below it where the text is large. */}
        <div className="flex min-w-0 flex-wrap items-center justify-between gap-x-3 gap-y-1 desk:contents">
          <h2 className="font-semibold">{t(name)}</h2>
          <div className="flex flex-wrap items-center gap-2 desk:col-start-4 desk:row-start-1">
            {finding && (
              <Pill tone={TONES[finding.outcome]}>
                {finding.outcome === 'good' && <Check aria-hidden className="size-3.5" />}
                {t(finding.outcome)}
              </Pill>
            )}
            {finding && finding.outcome !== 'good' && onAgain && (
              <Button onClick={onAgain}>{t('again')}</Button>
            )}
          </div>
        </div>
        <div className="col-start-2 row-start-2 text-[0.9rem] desk:col-start-3 desk:row-start-1">
          {finding ? (
            <>
              <p>{finding.words}</p>
              {remedy && <p className="text-soft">{remedy}</p>}
            </>
          ) : (
            <p className="text-soft">{t('running')}</p>
          )}
        </div>
      </div>
      {children}
    </li>
  );
}

interface ListProps {
  readonly demanded: readonly CheckName[];
  readonly findings: Findings;
  readonly put: (name: CheckName, finding: Finding | null) => void;
  readonly rerun: (name: CheckName) => Promise<void>;
}

/** Each check with what was measured, in plain words, and a remedy. */
export function CheckList({ demanded, findings, put, rerun }: ListProps) {
  const onCamera = useCallback((finding: Finding | null) => put('camera', finding), [put]);
  const onSound = useCallback((finding: Finding | null) => put('sound', finding), [put]);
  return (
    <ul className="rounded-card border border-line bg-card">
      {demanded.map((name) => (
        <CheckRow
          key={name}
          name={name}
          finding={findings[name]}
          onAgain={automaticChecks[name] ? () => void rerun(name) : null}
        >
          {name === 'camera' && <CameraCheck onFinding={onCamera} />}
          {name === 'sound' && <SoundCheck onFinding={onSound} />}
        </CheckRow>
      ))}
    </ul>
  );
}

const waivedOf = (finding: Finding): Finding => ({
  ...finding,
  outcome: 'good',
  facts: { ...finding.facts, waived: finding.outcome },
  words: t('waived', { words: finding.words }),
  remedy: null,
});

/** Whether some section of it may be read aloud to this candidate. */
export const readsAloud = ({
  sections,
}: {
  readonly sections: readonly { readonly aids: readonly AidName[] }[];
}): boolean => sections.some(({ aids }) => aids.includes('read-aloud'));

/** Says when the device has no voice to read aloud with. */
export function VoiceNotice() {
  if (useHasVoice()) return null;
  return (
    <div className="mt-4">
      <Notice tone="care">{t('noVoice')}</Notice>
    </div>
  );
}

/** The readiness checks as a step of the arrival. None is a dead end. */
export function Checks() {
  const { view, update } = useArrival();
  const { demanded, waived } = view.checks;
  const measured = useFindings(demanded, view.cover.kinds);
  const { busy, trouble, run } = useAction();
  const needsVoice = readsAloud(view.cover);
  const hasVoice = useHasVoice();
  const findings = Object.fromEntries(
    Object.entries(measured.findings).map(([name, finding]) => [
      name,
      waived.includes(name as CheckName) && finding.outcome !== 'good' ? waivedOf(finding) : finding,
    ]),
  ) as Findings;
  const found = demanded.map((name) => findings[name]).filter((f) => f !== undefined);
  const complete = found.length === demanded.length;
  const weak = found.some((f) => f.outcome !== 'good');
  const goOn = () =>
    run(async () => {
      const voice = needsVoice ? { voice: hasVoice } : {};
      const results = found.map(({ name, outcome, facts }) => ({
        name,
        outcome,
        // Whoever arranged reading aloud learns that the device cannot.
        facts: name === 'browser' ? { ...facts, ...voice } : facts,
      }));
      update(await post<ArrivalView>('/arrival/checks', { results, goOn: true }));
    });
  return (
    <>
      <StepTitle title={t('checksTitle')} text={t('checksText')} />
      <CheckList {...measured} findings={findings} demanded={demanded} />
      {needsVoice && <VoiceNotice />}
      <p className="mt-3 text-[0.9rem] text-soft">{t('closeThings')}</p>
      {trouble && (
        <div className="mt-4">
          <Notice tone="trouble">{trouble}</Notice>
        </div>
      )}
      <div className="mt-5 flex flex-wrap items-center gap-4">
        <Button look="first" className="min-h-11" disabled={!complete || busy} onClick={() => void goOn()}>
          {t(complete && weak ? 'checksGoNote' : 'checksGo')}
        </Button>
        {!complete && <p className="text-[0.9rem] text-soft">{t('checksWait')}</p>}
      </div>
    </>
  );
}
