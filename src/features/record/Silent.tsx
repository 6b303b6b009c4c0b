import { Far } from '../shell/Far';

/** A take in which no note was heard: nothing to judge, and the player says what becomes of it. */
export function Silent({ onKeep, onThrow }: { onKeep: () => void; onThrow: () => void }) {
  return (
    <Far
      alert
      meta={<span>The take is over</span>}
      soft="Nothing came in."
      bold="No note was heard."
      press={{ words: 'throw it away, try again', act: onThrow }}
      hold={{ words: 'throw it away', act: onThrow }}
      more={
        <button type="button" className="quiet text-[18px]" onClick={onKeep}>
          Keep it
        </button>
      }
    >
      <p className="mt-8 max-w-4xl text-[24px] leading-9 text-soft">
        Look at the volume on the guitar, the lead and the gain, and at which input is chosen.
      </p>
    </Far>
  );
}
