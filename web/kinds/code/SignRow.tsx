import { words } from '../../words';

const t = words('codeSigns', { signs: 'Signs', tab: 'Indent' });

const SIGNS = ['(', ')', '[', ']', '{', '}', ':', ';', '=', '"', "'", '<', '>', '_', '#'];

/** Signs that are hard to reach on a phone's keyboard. The editor keeps the focus, so that the keyboard stays. */
export function SignRow({
  indent,
  onSign,
}: {
  readonly indent: string;
  readonly onSign: (text: string) => void;
}) {
  const keep = (event: React.PointerEvent) => event.preventDefault();
  const button = (label: string, sign: string, shown: string) => (
    <button
      key={label}
      type="button"
      aria-label={label}
      onPointerDown={keep}
      onClick={() => onSign(sign)}
      className="min-h-11 min-w-11 flex-none rounded-control border border-line bg-card font-mono"
    >
      {shown}
    </button>
  );
  return (
    <div
      role="toolbar"
      aria-label={t('signs')}
      className="flex flex-none gap-1 overflow-x-auto border-t border-line bg-paper px-2 py-1"
    >
      {button(t('tab'), indent, '⇥')}
      {SIGNS.map((sign) => button(sign, sign, sign))}
    </div>
  );
}
