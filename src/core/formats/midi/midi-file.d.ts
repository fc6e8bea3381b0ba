declare module 'midi-file' {
  export interface MidiEvent {
    readonly deltaTime: number;
    readonly type: string;
    readonly [field: string]: unknown;
  }
  export interface MidiData {
    readonly header: { readonly format: 0 | 1; readonly numTracks: number; readonly ticksPerBeat: number };
    readonly tracks: readonly (readonly MidiEvent[])[];
  }
  export function writeMidi(data: MidiData): number[];
}
