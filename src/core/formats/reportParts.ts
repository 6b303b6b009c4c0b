import Joi from 'joi';
import { MOST_FRETS } from '../neck';

export const index = Joi.number().integer().min(0);

export const indices = Joi.array().items(index);

export const beat = Joi.number();

export const interval = Joi.string().max(4);

export const name = Joi.string().max(60);

export const height = Joi.number().integer().min(0).max(4);

export const note = Joi.object({
  index: index.required(),
  onsetBeat: beat.required(),
  playedBeat: beat,
  durationBeats: beat.min(0).required(),
  midi: Joi.number().min(0).max(127).required(),
  confidence: Joi.number().min(0).max(1),
  position: Joi.number().integer().min(1).max(MOST_FRETS),
  slur: Joi.string().valid('hammer', 'pull'),
  event: index.required(),
  top: Joi.boolean().required(),
  chord: name.allow(null).required(),
  interval: interval.allow(null).required(),
  tier: Joi.string().valid('chord', 'colour', 'scale', 'approach', 'outside').required(),
  height: height.required(),
  inPlan: Joi.boolean().required(),
  function: name.required(),
  chromatic: Joi.boolean(),
  appoggiatura: Joi.boolean(),
  from: index,
  targetIndex: index,
  flags: Joi.array()
    .items(Joi.string().valid('blue', 'altered', 'slide', 'bend', 'pickup', 'lead-in', 'resolved'))
    .required(),
  spans: Joi.array()
    .items(
      Joi.object({
        chord: name.allow(null).required(),
        interval: interval.allow(null).required(),
        height: height.required(),
        beats: beat.min(0).required(),
      }),
    )
    .min(1)
    .required(),
});

export const counts = Joi.object().pattern(
  interval,
  Joi.object({ count: index.required(), beats: beat.min(0).required(), strong: index.required() }),
);

export const landing = Joi.object({
  noteIndex: index.allow(null).required(),
  interval: interval.allow(null).required(),
  timing: Joi.string().valid('on', 'early', 'held', 'late', 'none').required(),
  verdict: Joi.string().valid('target', 'chord-tone', 'colour', 'scale', 'outside', 'none').required(),
  rest: Joi.boolean(),
  delayed: Joi.boolean(),
  resolutionIndex: index,
  resolvedAfterBeats: beat,
});

export const change = Joi.object({
  index: index.required(),
  chorus: index.min(1).required(),
  bar: index.min(1).required(),
  beat: beat.required(),
  from: name.required(),
  to: name.required(),
  landing: landing.required(),
  connection: Joi.object({
    semitones: Joi.number().integer().allow(null).required(),
    kind: Joi.string().valid('common', 'step', 'skip', 'leap', 'fresh').allow(null).required(),
    nearestTarget: Joi.object({
      midi: Joi.number().integer().required(),
      semitones: Joi.number().integer().required(),
    })
      .allow(null)
      .required(),
  }).required(),
  fix: Joi.object({ noteIndex: index.required(), toMidi: Joi.number().integer().required() })
    .allow(null)
    .required(),
  turnedAtBeat: beat,
});
