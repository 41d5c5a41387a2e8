/** The cell that marks are set on; columns from the anchor to it are chosen. */
export interface Cursor {
  line: number;
  column: number;
  anchor: number;
}
