import { useQuery } from '@tanstack/react-query';
import { Command } from 'cmdk';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import type { Page } from '../../core/lists/list';
import type { PaperRow } from '../../core/papers/importApi';
import type { RoundRow } from '../../core/rounds/api';
import { get } from '../api/client';
import { t } from './words';

export interface PaletteEntry {
  readonly words: string;
  readonly to: string;
}

interface Found {
  readonly rounds: readonly PaletteEntry[];
  readonly people: readonly PaletteEntry[];
  readonly papers: readonly PaletteEntry[];
}

interface PersonFound {
  readonly round: number;
  readonly roundTitle: string;
  readonly name: string;
  readonly reference: string;
}

async function look(search: string): Promise<Found> {
  const asked = `search=${encodeURIComponent(search)}&size=6`;
  const [rounds, people, papers] = await Promise.all([
    get<Page<RoundRow>>(`/rounds?${asked}`),
    get<Page<PersonFound>>(`/people?${asked}`),
    get<Page<PaperRow>>(`/papers?${asked}`),
  ]);
  return {
    rounds: rounds.rows.map(({ id, title }) => ({ words: title, to: `/staff/rounds/${id}` })),
    people: people.rows.map(({ round, roundTitle, name, reference }) => ({
      words: `${name} · ${reference} · ${roundTitle}`,
      to: `/staff/rounds/${round}?search=${encodeURIComponent(reference)}`,
    })),
    papers: papers.rows.map(({ id, title, version }) => ({
      words: `${title} · ${version}`,
      to: `/staff/papers/${id}`,
    })),
  };
}

const NOTHING: Found = { rounds: [], people: [], papers: [] };

/** Ctrl K: pages, rounds, people and papers by a few letters of their names, and what can be done. */
export function Palette({
  pages,
  actions,
  coordinates,
}: {
  readonly pages: readonly PaletteEntry[];
  readonly actions: readonly PaletteEntry[];
  /** Only coordinators look up rounds, people and papers. */
  readonly coordinates: boolean;
}) {
  const [open, setOpen] = useState(false);
  const [search, setSearch] = useState('');
  const navigate = useNavigate();
  const { data: found = NOTHING } = useQuery({
    queryKey: ['palette', search],
    queryFn: () => look(search),
    enabled: open && coordinates && search.trim().length > 1,
    placeholderData: (before: Found | undefined) => before,
  });
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.key.toLowerCase() !== 'k' || !(event.ctrlKey || event.metaKey)) return;
      event.preventDefault();
      setOpen((was) => !was);
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);
  const go = (to: string) => {
    setOpen(false);
    setSearch('');
    void navigate(to);
  };
  const looking = search.trim().length > 1;
  const groups = [
    ['pages', pages, false],
    ['rounds', looking ? found.rounds : [], true],
    ['people', looking ? found.people : [], true],
    ['papers', looking ? found.papers : [], true],
    ['actions', actions, false],
  ] as const;
  return (
    <>
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="mb-3 flex min-h-9 items-center justify-between rounded-control border border-line bg-card px-2.5 text-left text-[0.85rem] text-soft hover:border-edge"
      >
        {t('palette')}
      </button>
      <Command.Dialog
        open={open}
        onOpenChange={setOpen}
        label={t('paletteTitle')}
        loop
        overlayClassName="fixed inset-0 z-30 bg-ink/30"
        contentClassName="fixed top-[15vh] left-1/2 z-40 w-[36rem] max-w-[94vw] -translate-x-1/2 overflow-hidden rounded-card border border-line bg-card shadow-float"
      >
        <Command.Input
          value={search}
          onValueChange={setSearch}
          placeholder={t('paletteTitle')}
          className="w-full border-b border-line bg-card px-4 py-3 text-[1.05rem] outline-none focus-visible:shadow-none"
        />
        <Command.List className="max-h-[50vh] overflow-y-auto p-1.5">
          <Command.Empty className="px-3 py-4 text-soft">{t('paletteNothing')}</Command.Empty>
          {groups.map(
            ([name, entries, server]) =>
              entries.length > 0 && (
                <Command.Group
                  key={name}
                  heading={t(name)}
                  className="[&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-[0.8rem] [&_[cmdk-group-heading]]:text-soft"
                >
                  {entries.map(({ words, to }) => (
                    <Command.Item
                      key={`${to} ${words}`}
                      // What the server found fits already, whatever letters it shows.
                      value={server ? `${words} ${search}` : words}
                      onSelect={() => go(to)}
                      className="flex min-h-9 items-center rounded-control px-3 data-[selected=true]:bg-wash"
                    >
                      {words}
                    </Command.Item>
                  ))}
                </Command.Group>
              ),
          )}
        </Command.List>
      </Command.Dialog>
    </>
  );
}
