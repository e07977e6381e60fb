import { useQueryClient } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { checkNames, type CheckName } from '../../core/arrival/checks';
import { startRules, type StartRule } from '../../core/arrival/stage';
import type { Page } from '../../core/lists/list';
import type { PaperRow } from '../../core/papers/importApi';
import {
  attemptRules,
  releaseRules,
  sheetsShown,
  type AttemptRule,
  type NewRound,
  type ReleaseRule,
  type Role,
  type SheetShown,
  type StaffRow,
} from '../../core/rounds/api';
import { withdrawnRules, type WithdrawnRule } from '../../core/papers/ruling';
import { instantOf, wallTimeAt } from '../../core/timing/wallTime';
import { post } from '../api/client';
import { useFetched } from '../staff/queries';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { StaffPage } from '../ui/StaffPage';
import { useAction } from '../ui/useAsync';
import { t } from './words';

const FIELD = 'mt-1 block min-h-10 w-full rounded-control border border-edge bg-card px-3';
const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
const ZONES = ['UTC', ...Intl.supportedValuesOf('timeZone')];

function Group({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <fieldset className="mb-5 rounded-card border border-line bg-card p-5">
      <legend className="px-1 font-semibold">{title}</legend>
      <div className="grid gap-4 desk:grid-cols-2">{children}</div>
    </fieldset>
  );
}

function Labelled({ label, children }: { readonly label: string; readonly children: ReactNode }) {
  return (
    <label className="block">
      {label}
      {children}
    </label>
  );
}

interface Draft {
  readonly title: string;
  readonly paper: string;
  readonly opens: string;
  readonly closes: string;
  readonly resultBy: string;
  readonly timeZone: string;
  readonly locale: string;
  readonly startRule: StartRule;
  readonly doorsMinutes: string;
  readonly attemptsAllowed: string;
  readonly pauseMinutes: string;
  readonly counts: AttemptRule;
  readonly keptDays: string;
  readonly help: string;
  readonly release: ReleaseRule;
  readonly releaseAt: string;
  readonly sheet: SheetShown;
  readonly checkDays: string;
  readonly withdrawn: WithdrawnRule;
}

function blank(paper: string): Draft {
  const { timeZone, locale } = Intl.DateTimeFormat().resolvedOptions();
  const next = Math.ceil(Date.now() / HOUR_MS) * HOUR_MS;
  const wall = (at: number) => wallTimeAt(at, timeZone);
  return {
    title: '',
    paper,
    timeZone,
    locale,
    startRule: 'opening time',
    doorsMinutes: '30',
    opens: wall(next),
    closes: wall(next + 7 * DAY_MS),
    resultBy: wall(next + 21 * DAY_MS),
    attemptsAllowed: '1',
    pauseMinutes: '0',
    counts: 'latest',
    keptDays: '60',
    help: '',
    release: 'after sign-off',
    releaseAt: wall(next + 21 * DAY_MS),
    sheet: 'feedback',
    checkDays: '14',
    withdrawn: 'scaled',
  };
}

const OPTIONS = {
  openRehearsal: true,
  correctionsFirst: false,
  identityPicture: false,
  joinedPhones: false,
  questionnaire: true,
  forPractice: false,
  marksMayFall: false,
  bandsAfterwards: false,
};
type OptionName = keyof typeof OPTIONS;
/** Options that stand with the result; the others with the arrival. */
const OF_RESULT: readonly OptionName[] = ['marksMayFall', 'bandsAfterwards'];
const OF_ARRIVAL = (Object.keys(OPTIONS) as OptionName[]).filter((name) => !OF_RESULT.includes(name));

type Chosen = ReadonlyMap<number, readonly Role[]>;

const toggled = <T,>(all: readonly T[], one: T): T[] =>
  all.includes(one) ? all.filter((other) => other !== one) : [...all, one];

/** A round from a paper: window, start, checks, attempts, staff. */
export function NewRoundPage() {
  const [query] = useSearchParams();
  const [papers] = useFetched<Page<PaperRow>>('/papers?size=200');
  const [staff] = useFetched<StaffRow[]>('/staff');
  const [draft, setDraft] = useState(() => blank(query.get('paper') ?? ''));
  const [checks, setChecks] = useState<readonly CheckName[]>(['browser', 'screen', 'storage', 'connection']);
  const [options, setOptions] = useState(OPTIONS);
  const [chosen, setChosen] = useState<Chosen>(new Map());
  const { busy, trouble, run } = useAction();
  const client = useQueryClient();
  const navigate = useNavigate();
  const field = (name: keyof Draft) => ({
    className: FIELD,
    value: draft[name],
    onChange: (event: React.ChangeEvent<HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement>) =>
      setDraft({ ...draft, [name]: event.target.value }),
  });
  const at = (wall: string) => instantOf(wall, draft.timeZone) ?? 0;
  const make = () =>
    run(async () => {
      const { title, timeZone, locale, startRule, counts, help, release, sheet, withdrawn } = draft;
      const body: NewRound = {
        title,
        timeZone,
        paper: Number(draft.paper),
        opensAt: at(draft.opens),
        closesAt: at(draft.closes),
        settings: {
          locale,
          startRule,
          counts,
          help,
          checks,
          ...options,
          doorsMinutes: Number(draft.doorsMinutes),
          attemptsAllowed: Number(draft.attemptsAllowed),
          pauseMinutes: Number(draft.pauseMinutes),
          keptDays: Number(draft.keptDays),
          resultBy: at(draft.resultBy),
          release,
          releaseAt: release === 'on a date' ? at(draft.releaseAt) : null,
          sheet,
          checkDays: Number(draft.checkDays),
          withdrawn,
        },
        staff: [...chosen].flatMap(([id, roles]) => (roles.length > 0 ? [{ id, roles }] : [])),
      };
      const { id } = await post<{ id: number }>('/rounds', body);
      await client.invalidateQueries({ queryKey: ['/rounds'] });
      await navigate(`/staff/rounds/${id}`);
    });
  const option = (name: OptionName) => (
    <label key={name} className="flex items-center gap-2">
      <input
        type="checkbox"
        checked={options[name]}
        onChange={() => setOptions({ ...options, [name]: !options[name] })}
      />
      {t(name)}
    </label>
  );
  const choose = (id: number, role: Role) =>
    setChosen(new Map(chosen).set(id, toggled(chosen.get(id) ?? [], role)));
  return (
    <StaffPage title={t('newRound')} loaded={papers}>
      {({ rows }) => (
        <form
          className="max-w-[56rem]"
          onSubmit={(event) => {
            event.preventDefault();
            void make();
          }}
        >
          <Group title={t('groupPaper')}>
            <Labelled label={t('roundTitle')}>
              <input {...field('title')} required minLength={2} />
            </Labelled>
            <Labelled label={t('paper')}>
              <select {...field('paper')} required>
                <option value="">{t('choosePaper')}</option>
                {rows.map((paper) => (
                  <option key={paper.id} value={paper.id}>
                    {t('paperVersion', { title: paper.title, version: paper.version })}
                  </option>
                ))}
              </select>
            </Labelled>
          </Group>
          <Group title={t('groupWindow')}>
            <Labelled label={t('opensAt')}>
              <input type="datetime-local" {...field('opens')} required />
            </Labelled>
            <Labelled label={t('closesAt')}>
              <input type="datetime-local" {...field('closes')} required />
            </Labelled>
            <Labelled label={t('roundZoneField')}>
              <select {...field('timeZone')}>
                {ZONES.map((zone) => (
                  <option key={zone}>{zone}</option>
                ))}
              </select>
            </Labelled>
            <Labelled label={t('resultBy')}>
              <input type="datetime-local" {...field('resultBy')} required />
            </Labelled>
          </Group>
          <Group title={t('groupStart')}>
            <Labelled label={t('startRule')}>
              <select {...field('startRule')}>
                {startRules.map((rule) => (
                  <option key={rule} value={rule}>
                    {t(`start ${rule}`)}
                  </option>
                ))}
              </select>
            </Labelled>
            <Labelled label={t('doorsMinutes')}>
              <input type="number" min={0} max={240} {...field('doorsMinutes')} />
            </Labelled>
            <Labelled label={t('attempts')}>
              <input type="number" min={1} max={10} {...field('attemptsAllowed')} />
            </Labelled>
            <Labelled label={t('attemptCounts')}>
              <select {...field('counts')}>
                {attemptRules.map((rule) => (
                  <option key={rule} value={rule}>
                    {t(`counts ${rule}`)}
                  </option>
                ))}
              </select>
            </Labelled>
            <Labelled label={t('pauseMinutes')}>
              <input type="number" min={0} max={100_000} {...field('pauseMinutes')} />
            </Labelled>
            <Labelled label={t('localeField')}>
              <input {...field('locale')} required />
            </Labelled>
          </Group>
          <Group title={t('groupChecks')}>
            <div className="flex flex-wrap gap-x-5 gap-y-2 desk:col-span-2">
              {checkNames.map((name) => (
                <label key={name} className="flex items-center gap-2">
                  <input
                    type="checkbox"
                    checked={checks.includes(name)}
                    onChange={() => setChecks(toggled(checks, name))}
                  />
                  {t(`check ${name}`)}
                </label>
              ))}
            </div>
            {OF_ARRIVAL.map(option)}
          </Group>
          <Group title={t('groupResult')}>
            <Labelled label={t('releaseRule')}>
              <select {...field('release')}>
                {releaseRules.map((rule) => (
                  <option key={rule} value={rule}>
                    {t(`release ${rule}`)}
                  </option>
                ))}
              </select>
            </Labelled>
            {draft.release === 'on a date' && (
              <Labelled label={t('releaseAt')}>
                <input type="datetime-local" {...field('releaseAt')} required />
              </Labelled>
            )}
            <Labelled label={t('sheetShows')}>
              <select {...field('sheet')}>
                {sheetsShown.map((one) => (
                  <option key={one} value={one}>
                    {t(`sheet ${one}`)}
                  </option>
                ))}
              </select>
            </Labelled>
            <Labelled label={t('checkDays')}>
              <input type="number" min={0} max={365} {...field('checkDays')} />
            </Labelled>
            <Labelled label={t('withdrawn')}>
              <select {...field('withdrawn')}>
                {withdrawnRules.map((rule) => (
                  <option key={rule} value={rule}>
                    {t(`withdrawn ${rule}`)}
                  </option>
                ))}
              </select>
            </Labelled>
            {OF_RESULT.map(option)}
          </Group>
          <Group title={t('groupTold')}>
            <Labelled label={t('help')}>
              <textarea rows={2} {...field('help')} required />
            </Labelled>
            <Labelled label={t('keptDays')}>
              <input type="number" min={1} max={730} {...field('keptDays')} />
            </Labelled>
          </Group>
          <Group title={t('groupStaff')}>
            <p className="text-soft desk:col-span-2">{t('staffText')}</p>
            {staff.state === 'here' &&
              staff.value.map(({ id, name, roles }) => (
                <div key={id} role="group" aria-label={name} className="flex flex-wrap items-center gap-x-4">
                  <b>{name}</b>
                  {roles.map((role) => (
                    <label key={role} className="flex items-center gap-1.5">
                      <input
                        type="checkbox"
                        checked={chosen.get(id)?.includes(role) ?? false}
                        onChange={() => choose(id, role)}
                      />
                      {t(`role ${role}`)}
                    </label>
                  ))}
                </div>
              ))}
          </Group>
          {trouble && (
            <div className="mb-4">
              <Notice tone="trouble">{trouble}</Notice>
            </div>
          )}
          <Button type="submit" look="first" disabled={busy}>
            {t('makeRound')}
          </Button>
        </form>
      )}
    </StaffPage>
  );
}
