/** A slide of a lesson, and what is said to it. Times in ms are of the moment when the slide comes. */
export interface Slide {
  title: string;
  lines: string[];
  /** Heights between 0 and 1, drawn as a curve. */
  curve?: (x: number) => number;
  says: string[];
  /** Written to the class, or put on the board, so many ms after the slide came. By whom: 0 is the teacher. */
  written?: [ms: number, by: number, text: string][];
  board?: { text: string; at: [number, number] };
  /** The class is asked this with the slide. */
  asks?: { text: string; options: string[]; right: number };
}

/** One short lesson: its voice and colours tell it from the others. */
export interface Lesson {
  voice: string;
  sea: [string, string];
  slides: Slide[];
}

const tide = (springs: number) => (x: number) => 0.5 + 0.42 * springs * Math.cos(4 * Math.PI * x);

export const LESSONS: readonly Lesson[] = [
  {
    voice: 'en-gb+f3',
    sea: ['0x12352C', '0x2F6F8F'],
    slides: [
      {
        title: 'What moves the water',
        lines: ['The moon pulls most', 'The sun pulls half as much', 'Together: springs. Across: neaps'],
        says: [
          'Good evening. Tonight we look at the tide, and at what moves the water.',
          'The moon pulls most. The sun pulls about half as much.',
          'When they pull together the range is large, and we call these springs.',
        ],
        written: [[4000, 3, 'Is that why the quay flooded last week?']],
      },
      {
        title: 'Reading the curve',
        lines: ['High water 14:10, 4.6 metres', 'Low water 20:22, 0.9 metres'],
        asks: {
          text: 'When does the level fall fastest?',
          options: ['Just after high water', 'Half way between', 'Just before low water'],
          right: 1,
        },
        curve: tide(1),
        says: [
          'Here is the curve for the harbour. High water is at ten past two, four point six metres.',
          'Read along the bottom for the hour, and up for the height.',
          'Half way down the curve the water falls fastest. That is where boats are caught.',
        ],
        board: { text: 'Half tide: fastest', at: [0.3, 0.4] },
      },
      {
        title: 'Neaps beside springs',
        lines: ['The same harbour, a week later', 'Less range, slower streams'],
        curve: tide(0.45),
        says: [
          'And this is the same harbour a week later. The range is less than half.',
          'With less range the streams are slower, and the bar can be crossed for longer.',
        ],
        written: [[3000, 5, 'So a week makes two hours of difference at the bar.']],
      },
      {
        title: 'Your turn',
        lines: ['Height of tide at 16:40?', 'Is there water for 1.8 metres of draught?'],
        says: [
          'Now it is your turn. Find the height at twenty to five.',
          'Write it below, with the margin that you would keep. Two minutes, please.',
        ],
        written: [
          [3000, 7, '2.9 metres'],
          [4500, 9, '3.0, with half a metre kept'],
        ],
      },
    ],
  },
  {
    voice: 'en-gb-scotland+f2',
    sea: ['0x23324A', '0x8A5E0C'],
    slides: [
      {
        title: 'Three bearings, one place',
        lines: ['Church spire 047', 'Breakwater light 112', 'Beacon 171'],
        says: [
          'Welcome back. This is about where we are, found with three bearings.',
          'Take the church spire first. It changes slowly, because it is far away.',
          'Take what is abeam last, because it changes fastest.',
        ],
        written: [[2500, 2, 'Compass or true?']],
      },
      {
        title: 'From compass to true',
        lines: ['Compass 047', 'Deviation 3 east', 'Variation 17 west', 'True 033'],
        says: [
          'The chart knows only true north. So each bearing is corrected twice.',
          'Deviation is the ship’s own. Variation is the place’s own, and stands in the rose.',
          'East is added and west is taken away, from compass to true.',
        ],
        board: { text: '047 + 3 − 17 = 033', at: [0.2, 0.3] },
      },
      {
        title: 'The cocked hat',
        lines: ['Three lines seldom meet', 'You may be outside it', 'Take the corner nearest to danger'],
        asks: {
          text: 'From which corner do you steer?',
          options: ['The middle', 'The one nearest to danger', 'The one farthest from land'],
          right: 1,
        },
        says: [
          'Three lines seldom meet in one point. They make a small triangle.',
          'You may well be outside it. So take the corner nearest to danger, and steer from there.',
          'Draw it lightly, write the time beside it, and take it again in ten minutes.',
        ],
        written: [
          [2000, 4, 'What if the hat is large?'],
          [5000, 0, 'Then one bearing is wrong. Take all three again.'],
        ],
      },
    ],
  },
  {
    voice: 'en-gb-x-rp+f4',
    sea: ['0x1E5244', '0xC8921F'],
    slides: [
      {
        title: 'A course to steer',
        lines: ['Ground track 065', 'Stream 2.3 knots, setting 210', 'Speed through water 6 knots'],
        says: [
          'Last week we drew where the stream would take us. Today we steer against it.',
          'First the line over the ground, from here to the breakwater.',
          'Then one hour of stream, from where we start: two point three miles, setting two one zero.',
        ],
        written: [[3500, 6, 'From the start, not from the end?']],
      },
      {
        title: 'Closing the triangle',
        lines: ['Compasses at 6 miles', 'From the stream’s end to the track', 'Steer along that side'],
        asks: {
          text: 'Where is the stream drawn from?',
          options: ['Where we start', 'Where we want to be'],
          right: 0,
        },
        curve: (x) => 0.15 + 0.7 * x,
        says: [
          'Open the compasses to six miles, our speed through the water.',
          'From the end of the stream, strike an arc through the ground track.',
          'That side is the course to steer. The part of the track it cuts off is our speed over the ground.',
        ],
        board: { text: 'Steer 078', at: [0.55, 0.25] },
      },
      {
        title: 'Leeway comes last',
        lines: ['Wind from the north', 'Ten degrees to windward', 'Steer 068'],
        says: [
          'The stream moves the water. Leeway moves us through it, so it comes last.',
          'With the wind on this side we point ten degrees closer to it.',
          'And that is all. For Thursday, please work the passage on page forty.',
        ],
        written: [[4000, 8, 'Thank you, now it makes sense.']],
      },
    ],
  },
];
