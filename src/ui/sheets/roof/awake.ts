"use client";
import { useEffect, useState } from "react";

/** Keeps the screen lit while somebody aims. @returns false where this browser cannot. */
export const useAwake = (on: boolean): boolean => {
  const [held, setHeld] = useState(true);
  useEffect(() => {
    if (!on) return;
    if (!("wakeLock" in navigator)) {
      setHeld(false);
      return;
    }
    let lock: WakeLockSentinel | null = null;
    let over = false;
    const ask = (): void => {
      if (document.visibilityState !== "visible") return;
      navigator.wakeLock.request("screen").then(
        (got) => {
          if (over) void got.release();
          else lock = got;
          setHeld(true);
        },
        () => setHeld(false),
      );
    };
    ask();
    // It is let go whenever the page is hidden.
    document.addEventListener("visibilitychange", ask);
    return () => {
      over = true;
      document.removeEventListener("visibilitychange", ask);
      void lock?.release();
    };
  }, [on]);
  return held;
};

const LOW_HZ = 220;
const HIGH_HZ = 1320;
const LOW_DBM = -95;
const HIGH_DBM = -40;
/** Pitch of a level: an octave for every 21 dB, higher is stronger. */
export const pitchHz = (dbm: number): number => {
  const share = Math.max(0, Math.min(1, (dbm - LOW_DBM) / (HIGH_DBM - LOW_DBM)));
  return LOW_HZ * (HIGH_HZ / LOW_HZ) ** share;
};

const TONE_S = 0.35;
let audio: AudioContext | null = null;
/** Sounds a level once; whoever turns need not look. */
export const sound = (dbm: number): void => {
  try {
    audio ??= new AudioContext();
    const [oscillator, gain] = [audio.createOscillator(), audio.createGain()];
    oscillator.frequency.value = pitchHz(dbm);
    gain.gain.setValueAtTime(0.25, audio.currentTime);
    gain.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + TONE_S);
    oscillator.connect(gain).connect(audio.destination);
    oscillator.start();
    oscillator.stop(audio.currentTime + TONE_S);
  } catch {
    // A browser without sound is silent.
  }
};
