/** Rows that are chosen: these, or all that the filters find but these. */
export type Chosen = { all: boolean; ids: Set<number> };
