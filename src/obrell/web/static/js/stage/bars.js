/** The bars over and under the stage, which the art never lies beneath in sight, and its rulers. */
export const RULER_PX = 22;
export const BAR_PX = 24;
export const FOOT_PX = 36;
