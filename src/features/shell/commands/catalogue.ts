/** What the pedal does when it is pressed, held, or pressed twice. */
export type PedalGesture = 'press' | 'hold' | 'double';

/** A command as it is known before any screen is open: what its screen adds is when it works and what it does. */
export type CommandSpec = {
  readonly label: string;
  /** Keys it begins with, as {@link keyOfEvent} names them; the player may give it others. */
  readonly keys: readonly string[];
  readonly pedal?: PedalGesture;
  /** Keeping the key down goes on. */
  readonly repeats?: true;
  /** Works while something is typed, too. */
  readonly inFields?: true;
};

/** Where commands work. A scope holds in all that begin with it: `review` also in `review.correct`. */
export const SCOPES = {
  app: 'Everywhere',
  tour: 'The tour',
  today: 'Today',
  week: 'The week ahead',
  library: 'Charts',
  chart: 'A chart',
  study: 'Study',
  play: 'Recording and drilling',
  input: 'No input',
  backing: 'Setting up a backing',
  drills: 'Drills',
  review: 'Review',
  'review.form': 'Review, the form',
  'review.correct': 'Review, correct',
  'review.far': 'Review, stand back',
  again: 'A bar played again',
  second: 'The stage on another screen',
  phrase: 'A phrase',
  progress: 'Progress',
  guide: 'Guide',
} as const;
export type Scope = keyof typeof SCOPES;

/** Keys a pedal may send: they press it wherever a screen gives it something to do. */
export const PEDAL = 'app.pedal';

const SPECS = {
  'app.pedal': {
    label: 'Pedal',
    keys: ['Space', 'PageUp', 'PageDown', 'ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'],
  },
  'app.palette': {
    label: 'Find a command, a screen, a chart, a take, a drill',
    keys: ['Ctrl+k'],
    inFields: true,
  },
  'app.keys': { label: 'All keys', keys: ['?'] },
  'app.words': { label: 'What the words here mean', keys: ['F1'] },
  'app.bringBack': { label: 'Bring back what was just thrown away', keys: ['z'] },
  'app.theme': { label: 'Light or dark', keys: [] },
  'app.today': { label: 'Go to Today', keys: [] },
  'app.charts': { label: 'Go to Charts', keys: [] },
  'app.study': { label: 'Go to Study', keys: [] },
  'app.record': { label: 'Go to Record', keys: [] },
  'app.takes': { label: 'Go to Takes', keys: [] },
  'app.setUp': { label: 'Set up the guitar', keys: [] },
  'app.stage': { label: 'Follow the take that runs on another device', keys: [] },
  'app.drills': { label: 'Go to Drills', keys: [] },
  'app.phrases': { label: 'Go to Phrases', keys: [] },
  'app.progress': { label: 'Go to Progress', keys: [] },
  'app.week': { label: 'Go to the week ahead', keys: [] },
  'app.diary': { label: 'Go to the diary', keys: [] },
  'app.settings': { label: 'Go to Settings', keys: [] },
  'app.guide': { label: 'Go to the guide', keys: [] },
  'app.tour': { label: 'Show me round', keys: [] },

  'tour.next': { label: 'Next step of the tour', keys: ['Enter'], pedal: 'press' },
  'tour.end': { label: 'End the tour', keys: ['Escape'] },

  'today.start': { label: 'Start what is due', keys: [], pedal: 'press' },
  'today.second': { label: 'Start the second one due', keys: ['2'] },
  'today.third': { label: 'Start the third one due', keys: ['3'] },
  'today.fourth': { label: 'Start the fourth one due', keys: ['4'] },
  'today.fifth': { label: 'Start the fifth one due', keys: ['5'] },
  'today.lastTake': { label: 'Open the review of the last take', keys: ['t'] },
  'today.goal': { label: 'Name something to be ready for', keys: ['g'] },

  'week.next': { label: 'Next thing to do', keys: ['ArrowDown'], repeats: true },
  'week.previous': { label: 'Thing before', keys: ['ArrowUp'], repeats: true },
  'week.later': { label: 'Put it a day later', keys: ['ArrowRight'] },
  'week.earlier': { label: 'Put it a day earlier', keys: ['ArrowLeft'] },
  'week.open': { label: 'Start it now', keys: ['Enter'] },

  'library.next': { label: 'Next form', keys: ['ArrowDown', 'PageDown'], repeats: true },
  'library.previous': { label: 'Form before', keys: ['ArrowUp', 'PageUp'], repeats: true },
  'library.hear': { label: 'Hear it', keys: ['h'] },
  'library.start': { label: 'Start from this form', keys: ['Enter'] },
  'library.create': { label: 'New chart', keys: ['n'] },

  'chart.study': { label: 'Study this chart', keys: ['Ctrl+Enter'], inFields: true },
  'chart.record': { label: 'Record over this chart', keys: [] },
  'chart.hear': { label: 'Hear it', keys: ['h'] },
  'chart.create': { label: 'New chart', keys: ['n'] },
  'chart.remove': { label: 'Remove this chart', keys: [] },

  'study.next': { label: 'Next chord', keys: ['ArrowRight', 'PageDown'], repeats: true },
  'study.previous': { label: 'Chord before', keys: ['ArrowLeft', 'PageUp'], repeats: true },
  'study.positionUp': { label: 'Position up the neck', keys: ['ArrowUp'], repeats: true },
  'study.positionDown': { label: 'Position down the neck', keys: ['ArrowDown'], repeats: true },
  'study.hearChord': { label: 'Hear the chord', keys: ['Space'] },
  'study.hearScale': { label: 'Hear its scale', keys: ['s'] },
  'study.hearThread': { label: 'Hear the guide-tone line', keys: ['t'] },
  'study.hearPlans': { label: 'Hear two plans, one after the other', keys: ['b'] },
  'study.viewThread': { label: 'Show the guide-tone line', keys: ['1'] },
  'study.viewPlace': { label: 'Show one place on the neck', keys: ['2'] },
  'study.viewShapes': { label: 'Show shapes', keys: ['3'] },
  'study.viewGrid': { label: 'Show the home scale against the chords', keys: ['4'] },
  'study.layer': { label: 'Chord tones, its scale, the plan', keys: ['l'] },
  'study.otherReading': { label: 'Take the other reading of the chord', keys: ['o'] },
  'study.record': { label: 'Record a take with this plan', keys: ['r'] },
  'study.edit': { label: 'Edit the chart', keys: ['e'] },

  'play.next': { label: 'The next thing: start, stop and save, again', keys: [], pedal: 'press' },
  'play.away': { label: 'Throw the take away, or go back', keys: ['Backspace'], pedal: 'hold' },
  'play.other': { label: 'The other way on', keys: [], pedal: 'double' },
  'play.loop': { label: 'Loop the weakest two bars', keys: ['l'], pedal: 'double' },
  'play.review': { label: 'Open its review', keys: ['Enter'] },
  'play.help': { label: 'Hide help step by step: targets, chord names, the form', keys: ['h'] },
  'play.louder': { label: 'Band louder', keys: ['+', '='], repeats: true },
  'play.quieter': { label: 'Band quieter', keys: ['-'], repeats: true },
  'play.drums': { label: 'Drums on or off', keys: ['1'] },
  'play.bass': { label: 'Bass on or off', keys: ['2'] },
  'play.chords': { label: 'Chords on or off', keys: ['3'] },
  'play.click': { label: 'Click: off, every beat, two and four, one a bar', keys: ['4'] },
  'play.faster': { label: 'The next tempo of the ladder', keys: ['.'] },
  'play.slower': { label: 'The tempo below', keys: [','] },

  'input.first': { label: 'The first way in', keys: ['1'] },
  'input.second': { label: 'The second way in', keys: ['2'] },
  'input.third': { label: 'The third way in', keys: ['3'] },
  'input.fourth': { label: 'The fourth way in', keys: ['4'] },
  'input.fifth': { label: 'The fifth way in', keys: ['5'] },

  'backing.tap': { label: 'Tap along', keys: ['t'] },

  'play.hearLine': { label: 'Hear the example', keys: ['s'] },
  'play.anotherLine': { label: 'Another example', keys: ['n'] },
  'play.chooseLine': { label: 'Eight examples to choose from', keys: ['e'] },
  'second.press': { label: 'Press the pedal of Record', keys: [], pedal: 'press' },

  'drills.start': { label: 'Open the first drill due', keys: [], pedal: 'press' },

  'phrase.hear': { label: 'Hear the phrase', keys: ['s'], pedal: 'press' },
  'phrase.nextView': { label: 'Next view', keys: ['v'] },
  'phrase.previousView': { label: 'View before', keys: ['Shift+v'] },
  'phrase.transfer': { label: 'The next way to carry it', keys: ['t'] },
  'phrase.hearForm': { label: 'Hear it over the form', keys: ['f'] },
  'phrase.drill': { label: 'Drill it over the form', keys: ['w'] },

  'review.drill': { label: 'Drill the first finding', keys: ['w'] },
  'review.undo': { label: 'Undo a correction', keys: ['Ctrl+z'] },
  'review.redo': { label: 'Redo a correction', keys: ['Ctrl+y', 'Ctrl+Shift+z'] },
  'review.nextView': { label: 'Next view', keys: ['v'] },
  'review.previousView': { label: 'View before', keys: ['Shift+v'] },
  'review.standBack': { label: 'Stand back, and back again', keys: ['b'] },
  'review.slower': { label: 'Slower', keys: ['-'], repeats: true },
  'review.faster': { label: 'Faster', keys: ['=', '+'], repeats: true },
  'review.take': { label: 'Take on or off', keys: ['t'] },
  'review.band': { label: 'Band on or off', keys: ['u'] },
  'review.click': { label: 'Click on or off', keys: ['j'] },

  'review.form.play': { label: 'Play and pause', keys: ['Space'] },
  'review.form.hear': { label: 'Hear what is selected', keys: ['Enter'] },
  'review.form.clear': { label: 'Let go of the selection', keys: ['Escape'] },
  'review.form.nextNote': { label: 'Next note', keys: ['ArrowRight'], repeats: true },
  'review.form.previousNote': { label: 'Note before', keys: ['ArrowLeft'], repeats: true },
  'review.form.nextChange': { label: 'Next change', keys: ['c', 'PageDown'], repeats: true },
  'review.form.previousChange': { label: 'Change before', keys: ['Shift+c', 'PageUp'], repeats: true },
  'review.form.nextFigure': { label: 'Next figure', keys: ['f'], repeats: true },
  'review.form.previousFigure': { label: 'Figure before', keys: ['Shift+f'], repeats: true },
  'review.form.nextPhrase': { label: 'Next phrase', keys: ['p'], repeats: true },
  'review.form.previousPhrase': { label: 'Phrase before', keys: ['Shift+p'], repeats: true },
  'review.form.nextChorus': { label: 'Next chorus', keys: ['r'], repeats: true },
  'review.form.previousChorus': { label: 'Chorus before', keys: ['Shift+r'], repeats: true },
  'review.form.chorusLater': { label: 'The same place a chorus later', keys: ['ArrowDown'] },
  'review.form.chorusEarlier': { label: 'The same place a chorus earlier', keys: ['ArrowUp'] },
  'review.form.loop': { label: 'Loop its bars', keys: ['l'] },
  'review.form.fix': { label: 'Hear the one-note fix', keys: ['x'] },
  'review.form.splitPhrase': { label: 'Begin a phrase at this note', keys: ['s'] },
  'review.form.joinPhrase': { label: 'Join the phrase to the one before', keys: ['m'] },
  'review.form.keepPhrase': { label: 'Keep the selected phrase', keys: ['k'] },
  'review.form.handLower': { label: 'The hand a fret lower', keys: ['['], repeats: true },
  'review.form.handHigher': { label: 'The hand a fret higher', keys: [']'], repeats: true },
  'review.form.handLikeliest': { label: 'The hand where it is likeliest', keys: ['0'] },
  'review.form.drawBy': { label: 'Draw by pitch or height', keys: ['d'] },
  'review.form.zoom': { label: 'Four bars wide, or the whole form', keys: ['z'] },
  'review.form.finding1': { label: 'Hear the first finding', keys: ['1'] },
  'review.form.finding2': { label: 'Hear the second finding', keys: ['2'] },
  'review.form.finding3': { label: 'Hear the third finding', keys: ['3'] },

  'review.correct.play': { label: 'Loop its bars at half speed', keys: ['Space'] },
  'review.correct.accept': { label: 'Take the likelier reading, or hear it', keys: ['Enter'] },
  'review.correct.other': { label: 'Take the other reading', keys: ['o'] },
  'review.correct.skip': { label: 'Next doubt', keys: ['n'] },
  'review.correct.next': { label: 'Next note', keys: ['ArrowRight'], repeats: true },
  'review.correct.previous': { label: 'Note before', keys: ['ArrowLeft'], repeats: true },
  'review.correct.settle': {
    label: 'Take the likelier reading; without a doubt, the next note',
    keys: ['PageDown'],
  },
  'review.correct.settleOther': {
    label: 'Take the other reading; without a doubt, the note before',
    keys: ['PageUp'],
  },
  'review.correct.up': { label: 'A half step up', keys: ['ArrowUp'], repeats: true },
  'review.correct.down': { label: 'A half step down', keys: ['ArrowDown'], repeats: true },
  'review.correct.remove': { label: 'Take the note out', keys: ['Delete', 'Backspace'] },
  'review.correct.add': { label: 'Add a note', keys: ['a'] },
  'review.correct.split': { label: 'Split the note', keys: ['s'] },
  'review.correct.join': { label: 'Join with the next', keys: ['m'] },
  'review.correct.ghost': { label: 'Ghost note, or not', keys: ['g'] },
  'review.correct.slur': { label: 'Slurred to the note before, or picked', keys: ['h'] },
  'review.correct.again': { label: 'Play its bar again', keys: ['p'] },
  'review.correct.startEarlier': { label: 'Start earlier', keys: ['['], repeats: true },
  'review.correct.startLater': { label: 'Start later', keys: [']'], repeats: true },
  'review.correct.endEarlier': { label: 'End earlier', keys: ['{'], repeats: true },
  'review.correct.endLater': { label: 'End later', keys: ['}'], repeats: true },
  'review.correct.moveEarlier': { label: 'Move earlier', keys: ['<'], repeats: true },
  'review.correct.moveLater': { label: 'Move later', keys: ['>'], repeats: true },
  'review.correct.close': { label: 'Back to the form', keys: ['Escape'] },

  'again.keep': { label: 'Keep the bar as it was just played', keys: ['Enter'], pedal: 'press' },
  'again.back': {
    label: 'Back, with the take as it was',
    keys: ['Backspace', 'Escape'],
    pedal: 'hold',
  },
  'again.once': { label: 'Play it once more', keys: ['l'], pedal: 'double' },

  'review.far.next': {
    label: 'Next change, with sound',
    keys: ['ArrowRight', 'ArrowDown', 'PageDown'],
    pedal: 'press',
  },
  'review.far.previous': { label: 'Change before', keys: ['ArrowLeft', 'ArrowUp', 'PageUp'] },
  'review.far.back': { label: 'Back to the full picture', keys: ['Backspace', 'Escape'], pedal: 'hold' },
  'review.far.loop': { label: 'Loop its two bars', keys: ['l', 'Enter'], pedal: 'double' },

  'progress.next': { label: 'Next row', keys: ['ArrowDown'], repeats: true },
  'progress.previous': { label: 'Row before', keys: ['ArrowUp'], repeats: true },
  'progress.view': { label: 'Next view', keys: ['v'] },
  'progress.drill': { label: 'Drill it', keys: ['d'] },

  'guide.find': { label: 'Find in the guide', keys: ['/'] },
} as const satisfies Readonly<Record<string, CommandSpec>>;

export type CommandId = keyof typeof SPECS;

/** Every command of the application: one list for keys, pedal, palette, footers, the key list and Settings. */
export const COMMANDS: Readonly<Record<CommandId, CommandSpec>> = SPECS;
export const COMMAND_IDS = Object.keys(SPECS) as CommandId[];

export const isCommandId = (id: string): id is CommandId => id in SPECS;

export const scopeOf = (id: CommandId): Scope => id.slice(0, id.lastIndexOf('.')) as Scope;

const isWithin = (inner: string, outer: string): boolean => inner === outer || inner.startsWith(`${outer}.`);

/** Can commands of both scopes work at the same time? */
export const scopesMeet = (a: Scope, b: Scope): boolean =>
  a === 'app' || b === 'app' || isWithin(a, b) || isWithin(b, a);

const PEDAL_SCOPES = new Set(COMMAND_IDS.filter((id) => COMMANDS[id].pedal).map(scopeOf));

/** Does the pedal do something where this command works? There its keys are taken. */
export const meetsPedal = (id: CommandId): boolean => PEDAL_SCOPES.has(scopeOf(id));
