/** The radius of the spotlight at first, and what one press makes of it, 0.01 mm. */
export const usualLight = 2_500;
export const leastLight = 800;
export const mostLight = 8_000;
export const lightStep = 1.3;
