/** What a line is drawn with, as a canvas has it. */
type Pen = Pick<CanvasRenderingContext2D, 'moveTo' | 'lineTo'>;

/** A line may pass a point that it leaves out at so much above or below, px: less than one can see. */
const TOLERANCE_PX = 0.2;

/**
 * Draws a line through points from left to right, or from right to left, and leaves out those that the line passes anyway:
 * in one pass, each piece is as long as one straight line through the tolerances of all its points can be. A line costs by its corners.
 * @param joins whether the first point is joined to what was drawn before
 */
export class Straightened {
  /** whether there is a corner to go on from, and a point after it that is not drawn yet */
  private begun = false;
  private waits = false;
  private fromX = 0;
  private fromY = 0;
  private lastX = 0;
  private lastY = 0;
  /** how steep the next piece may be */
  private low = -Infinity;
  private high = Infinity;

  constructor(
    private readonly pen: Pen,
    private joins = false,
  ) {}

  to(x: number, y: number): void {
    if (!this.begun) {
      if (this.joins) this.pen.lineTo(x, y);
      else this.pen.moveTo(x, y);
      this.begin(x, y);
      return;
    }
    if (this.waits) {
      const steep = (y - this.fromY) / (x - this.fromX);
      if (!(steep >= this.low && steep <= this.high)) {
        this.pen.lineTo(this.lastX, this.lastY);
        this.begin(this.lastX, this.lastY);
      }
    }
    const over = x - this.fromX;
    const steep = (y - this.fromY) / over;
    const margin = TOLERANCE_PX / Math.abs(over);
    this.low = Math.max(this.low, steep - margin);
    this.high = Math.min(this.high, steep + margin);
    this.lastX = x;
    this.lastY = y;
    this.waits = true;
  }

  private begin(x: number, y: number): void {
    this.begun = true;
    this.fromX = x;
    this.fromY = y;
    this.low = -Infinity;
    this.high = Infinity;
  }

  /** The line ends here; what comes next is not joined to it. */
  end(): void {
    if (this.waits) this.pen.lineTo(this.lastX, this.lastY);
    this.begun = this.waits = this.joins = false;
  }
}
