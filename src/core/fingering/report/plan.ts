/** A finished plan of both hands as plain data: what crosses to the screen, the server and the command line. */
import type { Pluck } from '../../score/model';
import type { BarEffort } from './effort';
import type { FormulaSpan } from '../formulas/recognise';
import type { SlurFault } from '../slurs/check';
import type { ChoiceReason } from '../left/explain/reasons';
import type { Carrier } from '../left/rules/shift';
import type { Remedy } from './remedies';
import type { RingsReport } from '../../rings/report';
import type { Ring, RingEnd } from '../../rings/ring';
import type { StrokeReason } from '../right/explain/reasons';
import type { PlannedFigure } from '../right/explain/plannedFigures';
import type { PlannedStroke } from '../right/explain/report';
import type { StrumLanding } from '../right/explain/strumLandings';

export interface PlannedNote {
  readonly uid: string;
  readonly strike: number;
  readonly momentIndex: number;
  /** Null on all four where the note cannot be played with the rest. */
  readonly string: number | null;
  readonly fret: number | null;
  readonly finger: number | null;
  /** Null on a slurred note, too. */
  readonly pluck: Pluck | null;
  /** Fret of the barre that the note lies under. */
  readonly barre: number | null;
  readonly soundsUntilTicks: number;
}

export interface PlannedBarre {
  readonly fret: number;
  readonly firstString: number;
  readonly lastString: number;
  readonly fromUid: string;
  readonly toUid: string;
}

/** A position as a guitarist names it, and when the hand is there. */
export interface HandStay {
  readonly position: number;
  readonly fromTicks: number;
}

/** A finger on a string from when to when, sounding or not. */
export interface FingerStay {
  readonly finger: number;
  readonly string: number;
  readonly fret: number;
  readonly fromTicks: number;
  readonly toTicks: number;
}

export type ShiftRisk = 'free' | 'tight' | 'tooFast';

export interface PlannedShift {
  readonly fromPosition: number;
  readonly toPosition: number;
  readonly distanceMm: number;
  readonly windowMs: number;
  readonly neededMs: number;
  readonly carrier: Carrier;
  readonly risk: ShiftRisk;
  /** The last note before, and the first of the new position. */
  readonly fromUid: string;
  readonly toUid: string;
  /** Ticks from the start: when the hand may leave and when it must be there. */
  readonly leavesTicks: number;
  readonly arrivesTicks: number;
  /** Quarters per minute at that place up to which the movement fits its window. */
  readonly worksUpToBpm: number;
  /** Back to where a passage begins again, or on to another ending: it arrives at the bar line that it comes from. */
  readonly jump: 'back' | 'on' | null;
}

/** Something the teacher should look at; the wording is in the message catalogue. */
export type Finding =
  | { readonly code: 'unplayable'; readonly uids: readonly string[]; readonly remedies: readonly Remedy[] }
  | {
      readonly code: 'outside';
      readonly uids: readonly string[];
      readonly lowest: string;
      readonly highest: string;
      readonly remedies: readonly Remedy[];
    }
  | {
      readonly code: 'inkContradicts';
      readonly uids: readonly string[];
      readonly remedies: readonly Remedy[];
    }
  | { readonly code: 'pluckContradicts'; readonly uids: readonly string[] }
  | {
      readonly code: 'cut';
      readonly uids: readonly string[];
      readonly lostQuarters: number;
      readonly end: RingEnd;
      readonly remedies: readonly Remedy[];
    }
  | {
      readonly code: 'shiftTooFast';
      readonly uids: readonly string[];
      readonly windowMs: number;
      readonly neededMs: number;
      readonly jump: PlannedShift['jump'];
    }
  | {
      readonly code: 'slurFault';
      readonly uids: readonly string[];
      readonly fault: SlurFault;
      readonly remedies: readonly Remedy[];
    }
  | { readonly code: 'printedDeparture'; readonly uids: readonly string[] }
  | {
      readonly code: 'landingTooFast';
      readonly uids: readonly string[];
      readonly thereMs: number;
      readonly neededMs: number;
    };

export interface FingeringPlan {
  /** Efforts in tenths of a point, both hands together and each by itself. */
  readonly cost: number;
  readonly lowerBound: number;
  readonly leftCost: number;
  readonly rightCost: number;
  /** One for each notehead that begins a sound, by onset and pitch. */
  readonly notes: readonly PlannedNote[];
  readonly barres: readonly PlannedBarre[];
  readonly shifts: readonly PlannedShift[];
  /** Where the hand stands, from when on. */
  readonly positions: readonly HandStay[];
  readonly fingers: readonly FingerStay[];
  readonly rings: readonly Ring[];
  readonly ringsReport: RingsReport;
  readonly findings: readonly Finding[];
  /** The right hand, one entry for each moment at which it plays. */
  readonly strokes: readonly PlannedStroke[];
  /** Where a formula of the right hand goes round. */
  readonly formulas: readonly FormulaSpan[];
  /** Spans of one texture, voice by voice. */
  readonly figures: readonly PlannedFigure[];
  /** Where the hand comes down again after a strum, a roll or a brush. */
  readonly landings: readonly StrumLanding[];
  /** By bar of the score. */
  readonly effortByBar: readonly BarEffort[];
}

/** A choice for one note with its price and, for all but the best, what makes it dearer. */
export interface LeftChoice {
  readonly string: number;
  readonly fret: number;
  readonly finger: number;
  readonly extraCost: number;
  /** Otherwise it is the least that it can be. */
  readonly exact: boolean;
  /** Terms that differ from the best plan, for the best choice none. */
  readonly reasons: readonly Reason[];
  /** What a teacher would say of it; of the best choice: why not the nearest other one. */
  readonly words: readonly ChoiceReason[];
  /** The same of the right hand: where another string makes it harder. */
  readonly strokeWords: readonly StrokeReason[];
}

/** A term whose total is higher (or lower, negative) in the best plan with this choice. */
export interface Reason {
  readonly term: string;
  readonly difference: number;
}

export interface RightChoice {
  readonly pluck: Pluck;
  /** Exact: whatever the strings; before that, on the strings as they are. */
  readonly extraCost: number;
  readonly exact: boolean;
  readonly words: readonly StrokeReason[];
  /** Notes that go to another string with this letter, the first few. */
  readonly strings: readonly { readonly ticks: number; readonly string: number }[];
}

export interface NoteChoices {
  readonly uid: string;
  /** Whether prices have been worked out for both hands; until then those of the left hand are the least that they can be. */
  readonly exact: boolean;
  readonly left: readonly LeftChoice[];
  readonly right: readonly RightChoice[];
}
