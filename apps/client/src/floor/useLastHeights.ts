import type { MachineOverview } from '@even-bed/contract';
import type { BedContours, HeightPoint } from '@even-bed/core';
import { skipToken } from '@reduxjs/toolkit/query';
import { useEffect, useState } from 'react';
import { useCheckQuery } from '../level/levelApi';
import { reckoner } from '../workers/reckoner';

const NOTHING: { points: HeightPoint[]; contours: BedContours | null } = { points: [], contours: null };

/** The heights with which a machine's last finished check ended; nothing before the first, or while they come. */
export function useLastHeights(machine: MachineOverview) {
  const { data: check } = useCheckQuery(machine.lastCheck ? { id: machine.lastCheck.id } : skipToken);
  const [heights, setHeights] = useState(NOTHING);
  const last = check?.roundList.at(-1);
  const setup = check?.setup;
  useEffect(() => {
    if (!last || !setup) return undefined;
    let current = true;
    void reckoner()
      .reckon({ now: { raw: last.raw, reading: last.reading }, setup })
      .then((answer) => {
        if (current && answer.ok)
          setHeights({ points: answer.reckoning.parsed.points, contours: answer.reckoning.contours });
      });
    return () => {
      current = false;
    };
  }, [last, setup]);
  return heights;
}
