/** Whether somebody asked their system for less motion. */
export const motionUnwanted = () => window.matchMedia("(prefers-reduced-motion: reduce)").matches;
