import { createContext, useContext, useEffect, useState } from 'react';

/** Where the files that texts name are. */
export interface FileSource {
  /** An address for pictures, sound and film, where it is known at once. */
  address(file: string): string | null;
  /** An address, once there is one; null where the file is not to be had. `type` is given where browsers cannot tell. */
  open(file: string, type?: string): Promise<string | null>;
  /** The bytes themselves; null where they are not to be had. */
  bytes(file: string): Promise<Uint8Array<ArrayBuffer> | null>;
}

/** Texts without their files: what they show is described in words. */
export const noFiles: FileSource = {
  address: () => null,
  open: () => Promise.resolve(null),
  bytes: () => Promise.resolve(null),
};

async function bytesAt(address: string | null): Promise<Uint8Array<ArrayBuffer> | null> {
  if (address === null) return null;
  // The content policy lets nothing be fetched from a data address.
  if (address.startsWith('data:'))
    return Uint8Array.from(atob(address.slice(address.indexOf(',') + 1)), (sign) => sign.charCodeAt(0));
  const answer = await fetch(address).catch(() => null);
  return answer?.ok ? new Uint8Array(await answer.arrayBuffer()) : null;
}

const filesAt = (address: (file: string) => string | null): FileSource => ({
  address,
  open: (file) => Promise.resolve(address(file)),
  bytes: (file) => bytesAt(address(file)),
});

/** As staff see published papers. */
export const staffFiles = filesAt((file) => `/api/media/${file}`);

/** What stands on a candidate's own result sheet. */
export const resultFiles = filesAt((file) => `/api/result-media/${file}`);

/** Files of rehearsals, which are open to everybody. */
export const rehearsalFiles = filesAt((file) => `/api/rehearsal-media/${file}`);

/** Files of a paper that is looked at before it is published: they came with it. */
export const previewFiles = (media: Readonly<Record<string, string>>): FileSource =>
  filesAt((file) => media[file] ?? null);

export const Files = createContext<FileSource>(noFiles);

export type FoundFile =
  | { readonly is: 'coming' }
  | { readonly is: 'here'; readonly address: string }
  | { readonly is: 'missing' };

/** The address of a file; nearly always there when it is asked for. */
export function useFile(file: string, type?: string): FoundFile {
  const files = useContext(Files);
  const known = files.address(file);
  const [found, setFound] = useState<FoundFile>({ is: 'coming' });
  useEffect(() => {
    if (known !== null) return;
    let current = true;
    const open = () =>
      void files.open(file, type).then((address) => {
        if (current) setFound(address === null ? { is: 'missing' } : { is: 'here', address });
      });
    open();
    // What could not be fetched without a connection is fetched with one.
    window.addEventListener('online', open);
    return () => {
      current = false;
      window.removeEventListener('online', open);
    };
  }, [files, file, type, known]);
  return known === null ? found : { is: 'here', address: known };
}
