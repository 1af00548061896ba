"use client";

import { useEffect, useState } from "react";

/** A value once it has stood for a while; the one before until then. */
export function useRest<T>(value: T, milliseconds: number): T | null {
  const [rested, setRested] = useState<T | null>(null);
  useEffect(() => {
    const timer = setTimeout(() => setRested(value), milliseconds);
    return () => clearTimeout(timer);
  }, [value, milliseconds]);
  return rested;
}
