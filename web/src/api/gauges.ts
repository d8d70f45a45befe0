/** Dial gauges as the server hears them: how each stands, and what it shows now. */
import { useEffect, useState } from 'react';
import type { Gauge, GaugeReading } from './types';
import { api } from './place';

export interface LiveGauge {
  state: Gauge;
  reading?: GaugeReading;
}

/** Every gauge by name, up to date for as long as the page is open. The browser reconnects by itself. */
export function useGauges(): { gauges: Map<string, LiveGauge>; connected: boolean } {
  const [gauges, setGauges] = useState<Map<string, LiveGauge>>(new Map());
  const [connected, setConnected] = useState(false);
  useEffect(() => {
    const source = new EventSource(`${api}/gauges/stream`);
    source.onopen = () => setConnected(true);
    source.onerror = () => setConnected(false);
    source.addEventListener('state', (e) => {
      const state = JSON.parse((e as MessageEvent<string>).data) as Gauge;
      setGauges((all) => new Map(all).set(state.name, { ...all.get(state.name), state }));
    });
    source.addEventListener('reading', (e) => {
      const reading = JSON.parse((e as MessageEvent<string>).data) as GaugeReading;
      setGauges((all) => {
        const g = all.get(reading.name);
        return g ? new Map(all).set(reading.name, { ...g, reading }) : all;
      });
    });
    return () => source.close();
  }, []);
  return { gauges, connected };
}
