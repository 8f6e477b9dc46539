/** What the search is to fill. */
export interface Frame {
  /** Width to height of what the sheet is looked at in. */
  aspect: number;
  /** How much is given for a larger zoom: so many crossings for e times the zoom. */
  fit: number;
  /** How wide the rows of a container may be, as a share of what its plates ask for; the less, the more rows. */
  folding: number;
}
