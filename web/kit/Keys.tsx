import { words } from '../words';
import { Panel } from './Panel';
import { DESK_KEYS, SINGLE_KEYS, useSingleKeys } from './singleKeys';

const t = words('keys', {
  title: 'Keys for the desk',
  'key next': 'Alt + Page Down',
  'key previous': 'Alt + Page Up',
  'key kit': 'F7',
  'key flag': 'F8',
  'key last': 'F9',
  'key clock': 'F10',
  'key close': 'Esc',
  next: 'next question',
  previous: 'previous question',
  flag: 'flag or unflag',
  last: 'last look',
  clock: 'show or hide the clock',
  kit: 'to the kit',
  close: 'close the last aid you used',
  'single keys': 'show or hide this list',
  'single kit': 'to the kit',
  singleOn: 'Single keys',
  singleText:
    'Single keys work while you are not typing in a field. Switch them off if you use speech input.',
});

/** The keys of the desk. Those of one character can be switched off (WCAG 2.1.4). */
export function Keys() {
  const [on, setOn] = useSingleKeys();
  return (
    <Panel
      id="keys"
      title={t('title')}
      first={{ corner: 'right', width: 370, height: 472 }}
      least={{ width: 260, height: 200 }}
    >
      <div className="min-h-0 flex-1 overflow-y-auto px-4 py-2">
        <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
          {DESK_KEYS.map((name) => (
            <div key={name} className="contents">
              <dt className="font-mono text-[0.85rem]">{t(`key ${name}`)}</dt>
              <dd>{t(name)}</dd>
            </div>
          ))}
          {on &&
            SINGLE_KEYS.map(([name, key]) => (
              <div key={key} className="contents">
                <dt className="font-mono text-[0.85rem]">{key}</dt>
                <dd>{t(`single ${name}`)}</dd>
              </div>
            ))}
        </dl>
        <label className="mt-3 flex min-h-9 items-center gap-2.5 border-t border-line pt-2">
          <input
            type="checkbox"
            checked={on}
            onChange={(event) => setOn(event.target.checked)}
            className="size-5"
          />
          {t('singleOn')}
        </label>
        <p className="text-[0.88rem] text-soft">{t('singleText')}</p>
      </div>
    </Panel>
  );
}
