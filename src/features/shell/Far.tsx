import type { ReactNode } from 'react';

export type Way = { readonly words: string; readonly act: () => void };
type Props = {
  meta: ReactNode;
  soft: ReactNode;
  bold: ReactNode;
  children?: ReactNode;
  beside?: ReactNode;
  alert?: boolean;
  press?: Way | undefined;
  hold?: Way | undefined;
  double?: Way | undefined;
  more?: ReactNode;
};

/** A screen to be read from two metres away: two lines, one picture, and what the pedal does now. */
export function Far({ meta, soft, bold, children, beside, alert = false, press, hold, double, more }: Props) {
  return (
    <div className="flex min-h-dvh flex-col">
      <main className="mx-4 flex grow flex-col pt-7 sm:mx-8" role={alert ? 'alert' : undefined}>
        <p className="flex flex-wrap gap-x-6 text-[18px] leading-8 text-dim sm:text-[22px]">{meta}</p>
        <div
          className={`grid grow grid-cols-[minmax(0,1fr)] gap-x-12 ${beside ? 'lg:grid-cols-[minmax(0,1fr)_auto]' : ''}`}
        >
          <div className="flex min-w-0 flex-col">
            <h1 className="mt-6 text-[44px] leading-[52px] font-[620] tracking-tight text-soft sm:mt-10 sm:text-[76px] sm:leading-[88px]">
              {soft}
              <br />
              <b className="text-ink">{bold}</b>
            </h1>
            {children}
          </div>
          {beside}
        </div>
      </main>
      <footer className="sticky bottom-0 z-10 mt-8 flex min-h-[88px] shrink-0 flex-wrap items-center gap-x-10 gap-y-1 border-t border-line bg-panel px-4 py-3 text-[20px] leading-8 sm:px-8 sm:text-[26px]">
        {(
          [
            ['press', press],
            ['hold', hold],
            ['double', double],
          ] as const
        ).map(
          ([name, way]) =>
            way && (
              <button key={name} type="button" onClick={way.act} className="text-left">
                <span className="mr-3 font-[640] text-now">{name}</span>
                <span className={name === 'press' ? 'text-ink' : 'text-soft'}>{way.words}</span>
              </button>
            ),
        )}
        {more && <span className="ml-auto text-[16px] text-dim sm:text-[18px]">{more}</span>}
      </footer>
    </div>
  );
}
