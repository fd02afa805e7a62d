/** A board of which nobody measured anything yet: that of a usual adapter, the barrier in its middle. */
export const assumedBoard = { widthMetres: 0.18, depthMetres: 0.12, barrierMetres: 0.09, lidZones: [] };
