import { useEffect, useState } from 'react';

/** A value once it has stayed the same for a while, in milliseconds: what is typed is not asked about letter by letter. */
export function useSettled<Value>(value: Value, ms = 300): Value {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), ms);
    return () => clearTimeout(timer);
  }, [value, ms]);
  return settled;
}
