import { useEffect } from 'react';
import { setLengthUnit } from '../model/units';
import { setTimeZone } from '../model/zone';
import { usePersonal } from './usePersonal';

/** Has this device tell lengths and times as the person chose on any of theirs. */
export function useRegion(): void {
  const habits = usePersonal()?.habits;
  const [unit, zone] = [habits?.unit, habits?.zone];
  useEffect(() => {
    if (unit) setLengthUnit(unit);
    if (zone !== undefined) setTimeZone(zone);
  }, [unit, zone]);
}
