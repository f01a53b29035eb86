import { useEffect, useState } from 'react';

export const speeds = [1, 5, 20, 60] as const;

export interface SessionClock {
  /** Virtual milliseconds. */
  time: number;
  isRunning: boolean;
  speed: number;
  setTime: (time: number) => void;
  setSpeed: (speed: number) => void;
  toggle: () => void;
}

/** A virtual clock that runs at a chosen speed, and stops at the end. */
export function useClock(end: number): SessionClock {
  const [time, setTime] = useState(0);
  const [isRunning, setRunning] = useState(false);
  const [speed, setSpeed] = useState<number>(5);
  useEffect(() => {
    if (!isRunning) return undefined;
    let last = performance.now();
    let frame = requestAnimationFrame(function tick(now) {
      const passed = (now - last) * speed;
      last = now;
      setTime((known) => Math.min(known + passed, end));
      frame = requestAnimationFrame(tick);
    });
    return () => cancelAnimationFrame(frame);
  }, [isRunning, speed, end]);
  const isOver = time >= end;
  useEffect(() => {
    if (isOver) setRunning(false);
  }, [isOver]);
  return {
    time,
    isRunning,
    speed,
    setTime,
    setSpeed,
    toggle: () => {
      if (isOver && !isRunning) setTime(0);
      setRunning(!isRunning);
    },
  };
}
