// A table out and in: the download, the file picker, and what was wrong with a table that was refused whole.
import { ChipButton } from '../ui/Press';
import { useMutation } from '@tanstack/react-query';
import { useRef } from 'react';
import { sendTable } from '../api/calls';
import { inUnits } from '../api/units';
import { NothingTaken } from './NothingTaken';

interface Props<T> {
  /** Where it is fetched from and sent to. */
  path: string;
  /** Words of the download. */
  out: string;
  /** What the file holds, for the screen reader. */
  what: string;
  /** Start of the test ids. */
  testid: string;
  /** The answer after a table was taken in. */
  taken: (v: T) => void;
  /** More buttons, before these. */
  children?: React.ReactNode;
}

export function CsvTable<T>({ path, out, what, testid, taken, children }: Props<T>) {
  const file = useRef<HTMLInputElement>(null);
  const bring = useMutation({ mutationFn: (f: File) => sendTable<T>(path, f), onSuccess: taken });
  return (
    <>
      <div style={{ display: 'flex', gap: 8, flexWrap: 'wrap' }}>
        {children}
        <ChipButton href={inUnits(path)} download data-testid={`${testid}-out`}>
          {out}
        </ChipButton>
        <ChipButton
          href={inUnits(path.replace(/\.csv$/, '.xlsx'))}
          download
          data-testid={`${testid}-out-xlsx`}
        >
          XLSX out
        </ChipButton>
        <ChipButton onClick={() => file.current?.click()} disabled={bring.isPending}>
          Table in
        </ChipButton>
        <input
          ref={file}
          type="file"
          accept=".csv,.xlsx,text/csv"
          className="vh"
          aria-label={`CSV or XLSX of ${what}`}
          data-testid={`${testid}-in`}
          onChange={(e) => {
            const f = e.target.files?.[0];
            if (f) bring.mutate(f);
            e.target.value = '';
          }}
        />
      </div>
      <NothingTaken error={bring.error} testid={`${testid}-fault`} />
    </>
  );
}
