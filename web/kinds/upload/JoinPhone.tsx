import { Smartphone } from 'lucide-react';
import { create } from 'qrcode';
import { useState } from 'react';
import { Button } from '../../ui/Button';
import { Notice } from '../../ui/Notice';
import { useAction } from '../../ui/useAsync';
import type { PhoneHandle, PhoneWay } from '../answerProps';
import { t } from './words';

/** A margin of four modules belongs to the code (ISO/IEC 18004). */
const MARGIN = 4;

/** The code, drawn as one path. */
function QrCode({ text }: { readonly text: string }) {
  const { size, data } = create(text, { errorCorrectionLevel: 'M' }).modules;
  const dark = Array.from(data, (on, i) => (on ? `M${i % size} ${Math.floor(i / size)}h1v1h-1z` : '')).join(
    '',
  );
  const side = size + 2 * MARGIN;
  return (
    <svg
      role="img"
      aria-label={t('phoneCode')}
      viewBox={`${-MARGIN} ${-MARGIN} ${side} ${side}`}
      shapeRendering="crispEdges"
      className="size-44 flex-none rounded-control bg-white"
    >
      <path d={dark} fill="#000" />
    </svg>
  );
}

const MINUTE_MS = 60_000;

/** A phone is joined by a code that is shown here and can be taken back. */
export function JoinPhone({ phone, disabled }: { readonly phone: PhoneHandle; readonly disabled: boolean }) {
  const [way, setWay] = useState<PhoneWay | null>(null);
  const { busy, trouble, run } = useAction();
  const { open } = phone;
  const join = () => run(async () => setWay(await phone.join()));
  const end = () =>
    run(async () => {
      await phone.end();
      setWay(null);
    });
  if (!open && way === null)
    return (
      <>
        <Button className="min-h-11" disabled={busy || disabled} onClick={() => void join()}>
          <Smartphone aria-hidden className="size-5" /> {t('usePhone')}
        </Button>
        {trouble && <Notice tone="trouble">{trouble}</Notice>}
      </>
    );
  const left = open ? Math.max(1, Math.floor((open.until - phone.now) / MINUTE_MS)) : 0;
  return (
    <section
      aria-label={t('phoneTitle')}
      className="flex basis-full flex-wrap items-start gap-x-5 gap-y-3 rounded-lg border border-line bg-card p-4"
    >
      {open && !open.joined && way !== null && <QrCode text={way.address} />}
      <div className="min-w-52 flex-1">
        <p className="font-semibold">{t('phoneTitle')}</p>
        {!open?.joined && <p className="mt-1 text-[0.92rem]">{t('phoneHelp')}</p>}
        {open && !open.joined && way !== null && (
          <p className="mt-1 text-[0.92rem]">
            {t('phoneTyped')} <b className="break-all">{way.typed}</b> · {t('phoneTypedCode')}{' '}
            <b className="font-mono whitespace-nowrap">{way.code}</b>
          </p>
        )}
        <p role="status" className="mt-1 text-[0.92rem] text-soft">
          {open
            ? `${t(open.joined ? 'phoneJoined' : 'phoneNobody')} ${t('phoneLeft', { count: left })}`
            : t('phoneOver')}
        </p>
        {trouble && <Notice tone="trouble">{trouble}</Notice>}
        <div className="mt-3 flex flex-wrap gap-2.5">
          {open && (
            <Button disabled={busy} onClick={() => void end()}>
              {t('phoneEnd')}
            </Button>
          )}
          {(!open || open.joined || way === null) && (
            <Button disabled={busy || disabled} onClick={() => void join()}>
              {t('phoneNew')}
            </Button>
          )}
        </div>
      </div>
    </section>
  );
}
