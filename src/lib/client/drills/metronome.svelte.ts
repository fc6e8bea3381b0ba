/**
 * Clicks by the audio clock. A timer looks a little ahead and schedules what falls due: a busy page does not make it
 * stumble.
 */
import type { Beat } from '$core/practice/beats';

const LOOK_AHEAD_S = 0.12;
const LOOK_EVERY_MS = 25;
const CLICK_S = 0.04;
const PITCHES = [880, 1175, 1568] as const;
const LOUDNESS = [0.25, 0.4, 0.6] as const;

export class Metronome {
  running = $state(false);
  /** Which beat of the bar is heard; −1 while it stands. */
  beat = $state(-1);
  /** Before the music begins. */
  countedIn = $state(false);

  private audio: AudioContext | null = null;
  private timer: ReturnType<typeof setInterval> | null = null;
  private nextAt = 0;
  private next = 0;

  /** @param quartersPerMinute read anew at every beat, so that a change is heard at once */
  constructor(
    private readonly beats: () => readonly Beat[],
    private readonly quartersPerMinute: () => number,
    /** How many beats are counted before the music begins. */
    private readonly countIn: () => number,
  ) {}

  toggle(): void {
    if (this.running) this.stop();
    else void this.start();
  }

  async start(): Promise<void> {
    this.audio ??= new AudioContext();
    await this.audio.resume();
    this.running = true;
    this.next = 0;
    this.nextAt = this.audio.currentTime + 0.1;
    this.timer = setInterval(() => this.look(), LOOK_EVERY_MS);
  }

  stop(): void {
    if (this.timer) clearInterval(this.timer);
    this.timer = null;
    this.running = false;
    this.beat = -1;
    this.countedIn = false;
  }

  close(): void {
    this.stop();
    void this.audio?.close();
    this.audio = null;
  }

  private look(): void {
    const { audio } = this;
    if (!audio) return;
    while (this.nextAt < audio.currentTime + LOOK_AHEAD_S) {
      const beats = this.beats();
      const k = this.next % beats.length;
      this.click(beats[k]!, this.nextAt);
      this.show(k, this.next < this.countIn(), this.nextAt - audio.currentTime);
      const until = (beats[k + 1]?.at ?? barLength(beats)) - beats[k]!.at;
      this.nextAt += (until * 60) / this.quartersPerMinute();
      this.next++;
    }
  }

  private click({ accent }: Beat, at: number): void {
    const audio = this.audio!;
    const tone = audio.createOscillator();
    const volume = audio.createGain();
    tone.frequency.value = PITCHES[accent];
    volume.gain.setValueAtTime(LOUDNESS[accent], at);
    volume.gain.exponentialRampToValueAtTime(0.001, at + CLICK_S);
    tone.connect(volume).connect(audio.destination);
    tone.start(at);
    tone.stop(at + CLICK_S);
  }

  /** When it is heard, not when it is scheduled. */
  private show(beat: number, countedIn: boolean, inSeconds: number): void {
    setTimeout(() => {
      if (!this.running) return;
      this.beat = beat;
      this.countedIn = countedIn;
    }, 1000 * inSeconds);
  }
}

const barLength = (beats: readonly Beat[]): number => beats.length * ((beats[1]?.at ?? 1) - beats[0]!.at);
