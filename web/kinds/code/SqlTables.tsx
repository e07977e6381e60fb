import { useEffect, useState } from 'react';
import { OUTPUT_LIMIT_BYTES } from '../../../core/kinds/code/checkerRun';
import type { CodeShown, Fixture } from '../../../core/kinds/code/response';
import { MAIN_FILES } from '../../../core/programs/engine';
import type { CaseOutcome } from '../../../core/kinds/evidence';
import { words } from '../../words';
import { rowsIn, RowsTable, type QueryTable } from './RowsTable';
import { engineOf } from './tryProgram';

const t = words('sqlTables', {
  tables: 'Tables',
  of: 'Tables of {{title}}',
  reading: 'Reading the tables …',
  sample: '{{name}}',
  note: 'The first rows of each table.',
});

const NAMES = "select name from sqlite_master where type in ('table', 'view') and name not like 'sqlite_%'";
const ROWS_SHOWN = 4;

interface Sample {
  readonly name: string;
  readonly table: QueryTable;
}

async function ask(fixture: Fixture, query: string): Promise<QueryTable | null> {
  const run = {
    language: 'sql',
    files: [{ name: MAIN_FILES.sql, text: query }],
    functionName: null,
    limits: { milliseconds: 5000, megabytes: 64, outputBytes: OUTPUT_LIMIT_BYTES },
  } as const;
  const outcome: CaseOutcome = await engineOf('sql').run(run, {
    key: 'tables',
    input: fixture.sql,
    files: [],
  });
  return outcome.result === 'returned' ? rowsIn(outcome.value) : null;
}

async function samplesOf(fixture: Fixture): Promise<Sample[]> {
  const names = await ask(fixture, NAMES);
  const samples: Sample[] = [];
  for (const [name] of names?.rows ?? []) {
    const quoted = `"${String(name).replaceAll('"', '""')}"`;
    const table = await ask(fixture, `select * from ${quoted} limit ${ROWS_SHOWN}`);
    if (table) samples.push({ name: String(name), table });
  }
  return samples;
}

/** The tables that a query is asked of, with their first rows, as the database itself has them. */
export function SqlTables({ fixtures }: Pick<CodeShown, 'fixtures'>) {
  const [samples, setSamples] = useState<readonly (readonly Sample[])[]>([]);
  useEffect(() => {
    let here = true;
    const read = async () => {
      const found: Sample[][] = [];
      for (const fixture of fixtures) found.push(await samplesOf(fixture));
      if (here) setSamples(found);
    };
    // Without its engine there is nothing to be read; whoever runs the query is told.
    read().catch(() => undefined);
    return () => {
      here = false;
    };
  }, [fixtures]);
  return (
    <section className="mb-2.5 rounded-card border border-line bg-card px-3 py-2" aria-label={t('tables')}>
      {fixtures.map((fixture, i) => (
        <details key={fixture.key} open={i === 0}>
          <summary className="min-h-8 cursor-pointer font-semibold">
            {fixtures.length > 1 ? t('of', { title: fixture.title }) : t('tables')}
          </summary>
          <div className="flex flex-wrap gap-x-6 gap-y-2 py-1 font-mono">
            <p className="w-full font-sans text-[0.82rem] text-soft">{t('note')}</p>
            {samples[i] === undefined && <p className="font-sans text-soft">{t('reading')}</p>}
            {samples[i]?.map(({ name, table }) => (
              <RowsTable key={name} title={t('sample', { name })} table={table} />
            ))}
          </div>
        </details>
      ))}
    </section>
  );
}
