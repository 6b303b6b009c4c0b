/** What players write in different ways, and the one way the readers know it by. */
const SAME: readonly (readonly [RegExp, string])[] = [
  [/[’‘]/g, "'"],
  [/♭/g, 'b'],
  [/♯/g, '#'],
  [/[–—]/g, '-'],
  [/[.!?;]+$/g, ''],
  [/\s*[.;:!]\s+/g, ', '],
  // asking for it
  [
    /^(?:please,? |can (?:i|we|you) |i'?d like to |i (?:want|would like|need|have) to |i wanna |let me |let's |help me (?:to )?|make me |give me |try(?:ing)? to |learn to |to )+/g,
    '',
  ],
  [
    /^(?:(?:practi[cs](?:e|ing)|work(?:ing)? on|train|drill|rehearse|do|exercise|play(?:ing)? a line (?:that|with)) )+(?!at )/g,
    '',
  ],
  // forms of words
  [
    /\b(land|start|end|play|aim|enclos|approach|leav|us|hit|target|resolv|slid|bend|connect|join|stay|step|answer|repeat|finish|begin|keep|rest|mov|surround|push|lead|finish|lay|trad|alternat|hold|walk|arpeggiat|outlin|skip|stopp|doubl)ing\b/g,
    '$1',
  ],
  [/\b(enclos|leav|us|resolv|slid|mov|trad|alternat|arpeggiat|outlin|doubl)\b/g, '$1e'],
  [/\bstopp\b/g, 'stop'],
  [/\b(land|start|end|begin|lead)s\b/g, '$1'],
  [/\bfinish(?:es)?\b/g, 'end'],
  [/\bbegin\b/g, 'start'],
  // numbers
  [/\b(?:two|both)\b/g, '2'],
  [/\bthree\b/g, '3'],
  [/\bfour\b/g, '4'],
  [/\bfive\b/g, '5'],
  [/\bsix\b/g, '6'],
  [/\bseven\b/g, '7'],
  [/\beight\b(?! notes?)/g, '8'],
  [/\btwelve\b/g, '12'],
  [/\bevery other\b/g, 'every 2'],
  [/\bevery second (bar|measure)/g, 'every 2 $1'],
  [/\bevery fourth (bar|measure)/g, 'every 4 $1'],
  [/\bevery third (bar|measure)/g, 'every 3 $1'],
  // the trade's words
  [/\bmeasure/g, 'bar'],
  [/-/g, ' '],
  [/\b(?:semi ?tone|fret)(?= (?:below|above|under|over|away|up|down|lower|higher|each|on))/g, 'half step'],
  [/\bhalf ?tone\b/g, 'half step'],
  [/\b(?:whole ?tone|whole|tone|2 frets)(?= (?:below|above|under|over|away))/g, 'whole step'],
  [/\b1 half step\b/g, 'half step'],
  [/\b(?:underneath|under|beneath|lower)\b/g, 'below'],
  [/\b(?:higher)(?= than)/g, 'higher'],
  [/\b(?:flat|flatted|flattened|minor|b) ?(3rd|third|3)s?\b/g, 'b3'],
  [/\b(?:flat|flatted|flattened|b) ?(5th|fifth|5|five)s?\b/g, 'b5'],
  [/\bblue (?:3rd|third|3)\b/g, 'blue third'],
  [/\b(?:major|natural) (3rd|third|3)s?\b/g, 'third'],
  [/\b(?:3rds?|thirds|3s)\b/g, 'third'],
  [/\b(?:5ths?|fifths|5s)\b/g, 'fifth'],
  [/\b(?:(?:flat|dominant|b) ?)?(?:7ths?|sevenths|7s|seventh|b7)\b/g, 'seventh'],
  [/\b(?:6ths?|sixths|6s|13ths?|thirteenths?)\b/g, 'sixth'],
  [/\b(?:9ths?|ninths|2nds?)\b/g, 'ninth'],
  [/\b(?:4ths?|fourths|11ths?|elevenths?)\b/g, 'fourth'],
  [/\b(?:roots|tonics?|root notes?)\b/g, 'root'],
  [
    /\b(?:chord notes?|notes? of (?:the |each |every )?chord|arpeggio (?:notes?|tones?)|chord ?tones)\b/g,
    'chord tone',
  ],
  [/\b(?:guide ?(?:tones?|notes?|tone lines?))\b/g, 'third or seventh'],
  [/\b(?:8th|eighth|quaver)s?(?: notes?)?\b/g, 'eighths'],
  [/\b(?:4th notes?|quarter|crotchet)s?(?: notes?)?\b/g, 'quarters'],
  [/\btriplets?(?: notes?)?\b/g, 'triplets'],
  [/\b(?:off ?beats?|up ?beats?|the ands|ands)\b/g, 'upbeats'],
  [/\b(?:motives?|motifs|ideas?|licks?|riffs?|figures?|cells?)\b/g, 'motif'],
  [/\b(?:rests?|silence|space|nothing|air|pause)\b/g, 'space'],
  [/\bsyncopat\w+\b/g, 'upbeats'],
  [/\b(?:chromatically)\b/g, 'by half step'],
  [/\bposition\b/g, 'place'],
  // where
  [
    /\b(?:(?:at|on|for|over|in) )?(?:the )?(?:beat )?(?:1|one|downbeat|first beat|first note) of (?:the |each |every )?(?:new )?(?:chord|bar)s?\b/g,
    'at change',
  ],
  [/\b(?:when|as|whenever|every time|each time) (?:the )?(?:chords?|harmony) changes?\b/g, 'at change'],
  [/\b(?:at|on|over|of|in) (?:all |every |each |the )(?:chord )?changes?\b/g, 'at change'],
  [/\b(?:at|on) (?:the )?(?:new|next) chord\b/g, 'at change'],
  [/\b(?:over|on|of|for|in|per) (?:all |every |each |the )?(?:chords?)\b(?! tone)/g, 'each chord'],
  [/\b(?:in|over|for|per) (?:every |each |all )?(?:bars?)\b(?! \d)/g, 'each bar'],
  // what says nothing more
  [/\b(?:the|its|their|my|your|our|some|always|really|clearly|of all|again and again|every time)\b/g, ' '],
  [/\b(?:a|an|one) (?=bar|beat)/g, '1 '],
  [/\b(?:a|an)\b/g, ' '],
  [/\s+/g, ' '],
  [/\s*,\s*/g, ', '],
  [/^[, ]+|[, ]+$/g, ''],
];

/** A wish in small letters with one word for each thing, whatever way it was written. */
export const inPlainWords = (text: string): string =>
  SAME.reduce(
    (plain, [pattern, by]) => plain.replace(pattern, by),
    text.trim().toLowerCase().replace(/\s+/g, ' '),
  );
