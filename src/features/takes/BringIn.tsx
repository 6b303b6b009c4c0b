'use client';
import { Dialog } from 'radix-ui';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { askInSteps, ServerRefusal } from '@/audio/persistence/serverTakes';
import type { ImportStep } from '@/server/takeImport';
import { Select } from '@/ui/controls';
import { notify } from '@/ui/toast/toasts';

type Props = { charts: readonly { readonly id: string; readonly title: string }[] };

/** A take from a file: one that was saved whole, or a line written elsewhere, held against a chart. */
export function BringIn({ charts }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const [line, setLine] = useState<File | null>(null);
  const { step, trouble, send, cancel, forget } = useSending();
  const busy = step !== null;
  const choose = (file: File | undefined) => {
    if (!file) return;
    forget();
    if (/\.zip$/i.test(file.name)) void send(file);
    else setLine(file);
  };
  return (
    <>
      {busy ? (
        <Sending step={step} onCancel={cancel} />
      ) : (
        <button type="button" className="quiet" onClick={() => input.current?.click()}>
          Bring in a saved take or a line
        </button>
      )}
      <input
        ref={input}
        type="file"
        className="sr-only"
        tabIndex={-1}
        aria-label="A saved take (.zip), or a line (.mid, .musicxml)"
        accept=".zip,.mid,.midi,.musicxml,.xml"
        onChange={(event) => {
          choose(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
      {trouble && !line && (
        <span role="alert" className="text-ink">
          {trouble}
        </span>
      )}
      {line && (
        <LineDialog
          line={line}
          charts={charts}
          trouble={trouble}
          busy={busy}
          onClose={() => {
            cancel();
            setLine(null);
          }}
          onSend={(query) => void send(line, query)}
        />
      )}
    </>
  );
}

type SendingStep = ImportStep | { readonly phase: 'sending'; readonly share?: number };

const PHASES: Record<SendingStep['phase'], string> = {
  sending: 'Sending the file',
  reading: 'Reading it',
  sound: 'Taking in its sound',
  keeping: 'Keeping it',
};

/** A file on its way in: what is being done with it, and how it is called back. */
function useSending() {
  const router = useRouter();
  const [step, setStep] = useState<SendingStep | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const sending = useRef<AbortController | null>(null);
  useEffect(() => () => sending.current?.abort(), []);
  const send = async (file: File, query = '') => {
    const { signal } = (sending.current = new AbortController());
    setTrouble(null);
    setStep({ phase: 'sending' });
    try {
      const { id, already } = await askInSteps<{ id: string; already?: true }, ImportStep>(
        `/api/takes/import${query}`,
        { method: 'POST', headers: { 'content-type': 'application/octet-stream' }, body: file, signal },
        setStep,
      );
      if (already) notify('This take is here already.');
      router.push(`/takes/${id}`);
    } catch (error) {
      setStep(null);
      if (signal.aborted) return;
      setTrouble(
        error instanceof ServerRefusal
          ? [error.problem.message, error.problem.suggestion].filter(Boolean).join(' ')
          : 'The server does not answer.',
      );
    }
  };
  return {
    step,
    trouble,
    send,
    cancel: () => sending.current?.abort(),
    forget: () => setTrouble(null),
  };
}

/** What is being done with a file. Once it is being kept it is too late to call it back. */
function Sending({ step: { phase, share }, onCancel }: { step: SendingStep; onCancel: () => void }) {
  const percent = share === undefined ? null : Math.round(100 * share);
  return (
    <span className="flex flex-wrap items-center gap-x-4 gap-y-1">
      <span role="status" className="text-soft">
        {PHASES[phase]}
        {percent === null ? '…' : `, ${percent} %`}
      </span>
      {percent !== null && (
        <span
          className="h-2 w-40 bg-line"
          role="progressbar"
          aria-label={PHASES[phase]}
          aria-valuemin={0}
          aria-valuemax={100}
          aria-valuenow={percent}
        >
          <span className="block h-2 bg-now" style={{ width: `${percent}%` }} />
        </span>
      )}
      {phase !== 'keeping' && (
        <button type="button" className="quiet" onClick={onCancel}>
          Cancel
        </button>
      )}
    </span>
  );
}

type LineProps = Props & {
  line: File;
  trouble: string | null;
  busy: boolean;
  onClose: () => void;
  onSend: (query: string) => void;
};

const LONGEST_NAME = 120;
const SLOWEST = 20;
const FASTEST = 400;
const nameOf = (file: File): string => file.name.replace(/\.[^.]*$/, '').slice(0, LONGEST_NAME) || 'A line';

/** A line without sound: the chart it is held against, and its tempo. */
function LineDialog({ line, charts, trouble, busy, onClose, onSend }: LineProps) {
  const [chart, setChart] = useState(charts[0]?.id ?? '');
  const [tempo, setTempo] = useState('120');
  const bpm = Math.round(Number(tempo));
  const fits = chart !== '' && bpm >= SLOWEST && bpm <= FASTEST;
  const query = new URLSearchParams({ chart, tempo: String(bpm), name: nameOf(line) });
  return (
    <Dialog.Root
      open
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
    >
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-bg/80" />
        <Dialog.Content
          className="fixed top-1/2 left-1/2 z-30 w-[520px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 border-t-[3px] border-now bg-panel p-6"
          aria-describedby={undefined}
        >
          <Dialog.Title className="text-[25px] leading-8 font-[640]">Hold it against a chart</Dialog.Title>
          <p className="mt-1 text-soft">{line.name}: beat 1 of the line is beat 1 of the form.</p>
          <label className="mt-4 grid grid-cols-[90px_1fr] items-center text-dim">
            Chart
            <Select
              label="Chart"
              value={chart}
              options={charts.map(({ id, title }) => [id, title] as const)}
              onChange={setChart}
            />
          </label>
          <label className="mt-2 grid grid-cols-[90px_1fr] items-center text-dim">
            Tempo
            <input
              className="field w-28 text-ink"
              inputMode="numeric"
              value={tempo}
              onChange={(event) => setTempo(event.target.value)}
            />
          </label>
          {trouble && (
            <p role="alert" className="mt-3 border-l-[3px] border-now pl-3 text-ink">
              {trouble}
            </p>
          )}
          <p className="mt-5 flex gap-3">
            <button
              type="button"
              className="go"
              disabled={!fits || busy}
              onClick={() => onSend(`?${query.toString()}`)}
            >
              Bring it in
            </button>
            <Dialog.Close className="quiet">Leave it</Dialog.Close>
          </p>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
