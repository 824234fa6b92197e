import type { Observation } from "@probe-lane/core/bench";
import { useEffect, useRef } from "react";

/** What is heard for a moment: what it is called, its pitch and how long it lasts. */
const NOISES = {
  tick: { caption: "tick", hz: 1500, seconds: 0.018, kind: "square", loud: 0.05 },
  flutter: { caption: "the tip flutters", hz: 30, seconds: 0.22, kind: "triangle", loud: 0.14 },
  shiver: { caption: "the tip sings", hz: 210, seconds: 0.16, kind: "triangle", loud: 0.1 },
  rustle: { caption: "paper rustles", hz: 3100, seconds: 0.12, kind: "sawtooth", loud: 0.03 },
  cut: { caption: "it cuts", hz: 240, seconds: 0.35, kind: "sawtooth", loud: 0.12 },
  chatter: { caption: "it chatters", hz: 47, seconds: 0.4, kind: "square", loud: 0.2 },
  touch: { caption: "a soft knock", hz: 420, seconds: 0.09, kind: "triangle", loud: 0.2 },
  crash: { caption: "a heavy thud", hz: 62, seconds: 0.5, kind: "sawtooth", loud: 0.5 },
} as const;
export type Noise = keyof typeof NOISES;

/** A spindle hums an octave above its turns, and never below what a small loudspeaker gives. */
export const humHz = (rpm: number): number => Math.min(900, Math.max(70, (rpm / 60) * 8));

/** What was heard between two looks, the loudest first; null where nothing was. Only from what is seen anyway. */
export function heardBetween(
  before: Observation,
  after: Observation,
  isNoticed: boolean,
  /** What the tool sounds like where it moved to; null where it only moves. */
  moving: Noise | null = null,
): Noise | null {
  if (after.incidents.length > before.incidents.length) return "crash";
  if (isNoticed) return "touch";
  const { x, y, z } = before.machine;
  const hasMoved = x !== after.machine.x || y !== after.machine.y || z !== after.machine.z;
  return hasMoved ? (moving ?? "tick") : null;
}

/** What is heard now, in words: for who has the sound off, or does not hear. */
export const caption = ({ spindle }: Observation, noise: Noise | null): string =>
  [spindle.isOn ? `hum at ${spindle.rpm}` : "", noise === null ? "" : NOISES[noise].caption].filter(Boolean).join(", ");

/** Plays what is heard, while it is switched on. */
class Speaker {
  private readonly context = new AudioContext();
  private hum: { oscillator: OscillatorNode; gain: GainNode } | null = null;

  turn(rpm: number | null): void {
    if (rpm === null) {
      this.hum?.gain.gain.setTargetAtTime(0, this.context.currentTime, 0.4);
      this.hum?.oscillator.stop(this.context.currentTime + 2);
      this.hum = null;
      return;
    }
    if (!this.hum) {
      const oscillator = this.context.createOscillator();
      const gain = this.context.createGain();
      oscillator.type = "sine";
      gain.gain.value = 0;
      oscillator.connect(gain).connect(this.context.destination);
      oscillator.start();
      this.hum = { oscillator, gain };
    }
    this.hum.oscillator.frequency.setTargetAtTime(humHz(rpm), this.context.currentTime, 0.3);
    this.hum.gain.gain.setTargetAtTime(0.05, this.context.currentTime, 0.3);
  }
  play(noise: Noise): void {
    const { hz, seconds, kind, loud } = NOISES[noise];
    const now = this.context.currentTime;
    const oscillator = this.context.createOscillator();
    const gain = this.context.createGain();
    oscillator.type = kind;
    oscillator.frequency.value = hz;
    gain.gain.setValueAtTime(loud, now);
    gain.gain.exponentialRampToValueAtTime(0.001, now + seconds);
    oscillator.connect(gain).connect(this.context.destination);
    oscillator.start(now);
    oscillator.stop(now + seconds);
  }
  end(): void {
    void this.context.close();
  }
}

/** The bench as it sounds. Returns nothing: what is heard stands in words beside the switch. */
export function useSound(
  isOn: boolean,
  seen: Observation,
  noise: { readonly what: Noise | null; readonly count: number },
): void {
  const speaker = useRef<Speaker | null>(null);
  const rpm = seen.spindle.isOn ? seen.spindle.rpm : null;
  useEffect(() => {
    if (!isOn) return undefined;
    speaker.current = new Speaker();
    return () => {
      speaker.current?.end();
      speaker.current = null;
    };
  }, [isOn]);
  useEffect(() => speaker.current?.turn(rpm), [isOn, rpm]);
  useEffect(() => {
    if (noise.what !== null) speaker.current?.play(noise.what);
  }, [noise.what, noise.count]);
}
