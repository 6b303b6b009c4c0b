import Joi from 'joi';
import type { Report } from '../analyse';
import { accepted, elementAt, refused, type Outcome } from '../shared';
import { beat, change, counts, index, indices, interval, name, note } from './reportParts';

const milliseconds = Joi.number().allow(null).required();

export const REPORT_SCHEMA = 'idle-wander/report@1';
/** idle-wander/report@1 (docs/architecture.md, “Report”), as this engine writes it. */
export const reportSchema = Joi.object<Report>({
  schema: Joi.string().valid(REPORT_SCHEMA).required(),
  notes: Joi.array().items(note).required(),
  events: Joi.array()
    .items(
      Joi.object({
        index: index.required(),
        onsetBeat: beat.required(),
        noteIndices: indices.required(),
        kind: Joi.string().valid('single', 'dyad', 'chord').required(),
        name: name.optional(),
        fit: Joi.string().valid('right', 'substitute', 'wrong').optional(),
        as: name.optional(),
      }),
    )
    .required(),
  figures: Joi.array()
    .items(
      Joi.object({
        kind: name.required(),
        noteIndices: indices.required(),
        targetIndex: index.required(),
        resolved: Joi.boolean().required(),
      }),
    )
    .required(),
  shapes: Joi.array()
    .items(
      Joi.object({
        kind: name.required(),
        noteIndices: indices.required(),
        name: name.required(),
        relation: interval,
      }),
    )
    .required(),
  changes: Joi.array().items(change).required(),
  coverage: Joi.array()
    .items(
      Joi.object({
        chord: name.required(),
        function: name.required(),
        count: index.required(),
        judged: Joi.boolean().required(),
        missing: Joi.array().items(interval).required(),
        byInterval: counts.required(),
      }),
    )
    .required(),
  coverageByFunction: Joi.array()
    .items(
      Joi.object({
        function: name.required(),
        count: index.required(),
        judged: Joi.boolean().required(),
        byInterval: counts.required(),
      }),
    )
    .required(),
  coverageOverall: Joi.object({
    count: index.required(),
    byInterval: counts.required(),
    beatsAtHeight: Joi.array().items(beat.min(0)).length(5).required(),
    homeUsed: indices.required(),
    homeUnused: indices.required(),
    range: Joi.object({ lowest: Joi.number().required(), highest: Joi.number().required() })
      .allow(null)
      .required(),
  }).required(),
  phrases: Joi.array()
    .items(
      Joi.object({
        startBeat: beat.required(),
        endBeat: beat.required(),
        noteIndices: indices.required(),
        pickupBeats: beat.min(0).required(),
        startVsChange: beat.allow(null).required(),
        endVsChange: beat.allow(null).required(),
        changesCrossed: index.required(),
        endInterval: interval.allow(null).required(),
        firm: Joi.boolean().required(),
        end: Joi.string().valid('home', 'floats', 'asks').required(),
        rests: Joi.boolean().required(),
        motif: index,
        theme: index,
        answers: index,
        changed: Joi.array().items(
          Joi.object({ noteIndex: index.required(), toChordTone: Joi.boolean().required() }),
        ),
      }),
    )
    .required(),
  stepOuts: Joi.array()
    .items(
      Joi.object({
        noteIndices: indices.required(),
        beats: beat.required(),
        shape: name.optional(),
        homeIndex: index.allow(null).required(),
      }),
    )
    .required(),
  place: Joi.array()
    .items(Joi.object({ fromBeat: beat.required(), toBeat: beat.required(), lagBeats: beat.required() }))
    .required(),
  line: Joi.object().pattern(Joi.string(), index).required(),
  arc: Joi.array()
    .items(
      Joi.object({
        chorus: index.min(1).required(),
        heights: Joi.array().items(beat.min(0).max(1)).length(5).required(),
        meanHeight: beat.allow(null).required(),
        density: beat.min(0).required(),
        register: beat.allow(null).required(),
        loudness: beat.allow(null).required(),
      }),
    )
    .required(),
  time: Joi.object({
    byEighth: Joi.array()
      .items(
        Joi.object({
          beat: index.min(1).required(),
          and: Joi.boolean().required(),
          count: index.min(1).required(),
          medianMs: Joi.number().required(),
          middleMs: Joi.array().items(Joi.number()).length(2).required(),
        }),
      )
      .required(),
    lean: Joi.object({
      ms: milliseconds,
      takenMs: Joi.number().required(),
      isDecided: Joi.boolean().required(),
      isMeasured: Joi.boolean().required(),
    }).required(),
    byChorus: Joi.array()
      .items(
        Joi.object({
          chorus: index.min(1).required(),
          onsets: index.required(),
          leanMs: milliseconds,
          spreadMs: milliseconds,
        }),
      )
      .required(),
    drift: Joi.object({
      ms: Joi.number().required(),
      isSure: Joi.boolean().required(),
      steady: index.required(),
      of: index.required(),
    })
      .allow(null)
      .required(),
  })
    .pattern(Joi.string(), Joi.number().allow(null))
    .required(),
  mutedBand: Joi.object({
    share: Joi.number().min(0).max(1).allow(null).required(),
    chance: Joi.number().min(0).max(1).required(),
    segments: Joi.array()
      .items(
        Joi.object({
          beat: beat.required(),
          chord: name.required(),
          verdict: Joi.string().valid('heard', 'unclear', 'not-heard', 'silent').required(),
          best: name.allow('').required(),
          margin: Joi.number().required(),
          said: name,
        }),
      )
      .required(),
  }).required(),
  heardBy: Joi.object({
    byChorus: Joi.array()
      .items(Joi.object({ chorus: index.min(1).required(), heard: index.required(), of: index.required() }))
      .required(),
    byChange: Joi.array()
      .items(Joi.object({ change: name.required(), heard: index.required(), of: index.required() }))
      .required(),
    decidedBy: Joi.array().items(indices).required(),
  }).required(),
  turnings: Joi.array()
    .items(
      Joi.object({
        change: name.required(),
        count: index.required(),
        medianBeats: beat.required(),
        spreadBeats: beat.required(),
      }),
    )
    .required(),
  missedDoors: Joi.array()
    .items(
      Joi.object({
        changeIndex: index.required(),
        fromMidi: beat.required(),
        toMidi: beat.required(),
        fromInterval: interval.required(),
        toInterval: interval.required(),
      }),
    )
    .required(),
  thirds: Joi.array()
    .items(
      Joi.object({
        noteIndex: index.required(),
        beat: beat.required(),
        chord: name.required(),
        cents: beat.required(),
        moved: beat.required(),
      }),
    )
    .required(),
  bars: Joi.array()
    .items(
      Joi.object({
        bar: index.min(1).required(),
        kind: Joi.string().valid('chords', 'line', 'rest').required(),
        events: index.required(),
      }),
    )
    .required(),
  handovers: Joi.array()
    .items(
      Joi.object({
        bar: index.min(1).required(),
        to: Joi.string().valid('chords', 'line').required(),
        beat: beat.required(),
        lateBeats: beat.required(),
        gapBeats: beat.required(),
        hit: index.optional(),
        lastNote: Joi.object({
          noteIndex: index.required(),
          interval: interval.allow(null).required(),
        }).optional(),
      }),
    )
    .required(),
  summary: Joi.object().pattern(Joi.string(), Joi.number()).required(),
});

/** A stored report, or where it is not what this engine writes. */
export function readReport(json: unknown): Outcome<Report> {
  const { error, value } = reportSchema.validate(json, { convert: false });
  if (!error) return accepted(value);
  const detail = elementAt(error.details, 0);
  return refused({
    code: 'report.shape',
    path: detail.path.join('.'),
    message: `The report is not as it should be: ${detail.message}.`,
  });
}
