import { createContext, type RefObject } from 'react';

/** Whether what is around is being scrolled at this moment. */
export const Moving = createContext<RefObject<boolean>>({ current: false });
