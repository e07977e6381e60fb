import { Component, type ReactNode } from 'react';
import { words } from '../words';
import { Button } from './Button';
import { Notice } from './Notice';

const t = words('guard', {
  part: 'This part of the page cannot be shown. The rest of the page works. Your saved answers are safe.',
  again: 'Show it again',
  page: 'This page cannot be shown',
  pageText:
    'Your saved answers are safe. Reload the page. If that does not help, open the same link in another browser.',
  reload: 'Reload the page',
});

interface Props {
  readonly children: ReactNode;
  /** What stands in the place of what failed, with a way to try again. */
  readonly instead?: (again: () => void) => ReactNode;
  /** Where this changes, something else is held: it is tried by itself. */
  readonly holds?: string | undefined;
}

interface State {
  readonly failed: boolean;
  readonly holds: string | undefined;
}

export const partInstead = (again: () => void) => (
  <Notice tone="trouble">
    <p>{t('part')}</p>
    <Button onClick={again} className="mt-3">
      {t('again')}
    </Button>
  </Notice>
);

/** For the whole page: whatever it holds is made again by the browser. */
export const pageInstead = () => (
  <main className="mx-auto max-w-[40rem] p-8">
    <h1 className="font-serif text-[1.75rem] font-semibold">{t('page')}</h1>
    <p role="alert" className="mt-2">
      {t('pageText')}
    </p>
    <Button onClick={() => window.location.reload()} className="mt-3">
      {t('reload')}
    </Button>
  </main>
);

/** Keeps a fault in what it holds from taking the rest of the page away. */
export class Guard extends Component<Props, State> {
  override state: State = { failed: false, holds: this.props.holds };

  static getDerivedStateFromError() {
    return { failed: true };
  }

  static getDerivedStateFromProps({ holds }: Props, known: State): State | null {
    return holds === known.holds ? null : { failed: false, holds };
  }

  override render() {
    const { children, instead = partInstead } = this.props;
    return this.state.failed ? instead(() => this.setState({ failed: false })) : children;
  }
}
