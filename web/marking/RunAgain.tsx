import { Play } from 'lucide-react';
import { useState } from 'react';
import type { MarkingScript } from '../../core/marking/api';
import { trials } from '../kinds/readings';
import { Button } from '../ui/Button';
import { useReady } from '../ui/ComponentShelf';
import { t } from './words';

function Trial({ script }: { readonly script: MarkingScript }) {
  const { kind, shown, response } = script;
  return useReady(trials, kind) ? trials.draw(kind, { shown, response }) : null;
}

/** The answer is run again here, with an input of the assessor's own; only once that is asked for. */
export function RunAgain({ script }: { readonly script: MarkingScript }) {
  const [open, setOpen] = useState(false);
  return (
    <div className="mt-3">
      {open ? (
        <Trial script={script} />
      ) : (
        <Button onClick={() => setOpen(true)}>
          <Play aria-hidden className="size-4" /> {t('runAgain')}
        </Button>
      )}
    </div>
  );
}
