import {
  appendBezierCurve,
  closePath,
  concatTransformationMatrix,
  fill,
  lineTo,
  moveTo,
  PDFDocument,
  type PDFOperator,
  popGraphicsState,
  pushGraphicsState,
  rectangle,
} from 'pdf-lib';

/** What is drawn on a page, in millimetres from its upper left corner: black rectangles, and outlines as SVG writes them. */
export type Drawn =
  | { is: 'bars'; bars: { x: number; y: number; width: number; height: number }[] }
  | { is: 'path'; x: number; y: number; path: string };
export type DrawnPage = { widthMm: number; heightMm: number; drawn: Drawn[] };

/** Points of a millimetre. */
const points = 72 / 25.4;

/** An outline of moves, lines and curves (M L C Q Z, all absolute) as a PDF draws it; curves of second order become cubic. */
function outline(path: string): PDFOperator[] {
  const made: PDFOperator[] = [];
  let at: [number, number] = [0, 0];
  for (const [, letter = '', rest = ''] of path.matchAll(/([MLCQZ])([^MLCQZ]*)/g)) {
    const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0] = (rest.match(/-?(?:\d+\.?\d*|\.\d+)(?:e-?\d+)?/g) ?? []).map(
      Number,
    );
    switch (letter) {
      case 'M':
        made.push(moveTo(a, b));
        at = [a, b];
        break;
      case 'L':
        made.push(lineTo(a, b));
        at = [a, b];
        break;
      case 'C':
        made.push(appendBezierCurve(a, b, c, d, e, f));
        at = [e, f];
        break;
      case 'Q': {
        const [x, y] = at;
        const third = (from: number, control: number) => from + (2 / 3) * (control - from);
        made.push(appendBezierCurve(third(x, a), third(y, b), third(c, a), third(d, b), c, d));
        at = [c, d];
        break;
      }
      default:
        made.push(closePath());
    }
  }
  return made;
}

/** Pages as a PDF; everything on them is outlines, so that every printer draws the same without any font. */
export async function writePdf(pages: Iterable<DrawnPage>, title: string): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  pdf.setTitle(title);
  pdf.setProducer('Netting');
  for (const { widthMm, heightMm, drawn } of pages) {
    const page = pdf.addPage([widthMm * points, heightMm * points]);
    for (const one of drawn) {
      const [x, y] = one.is === 'path' ? [one.x, one.y] : [0, 0];
      const shape =
        one.is === 'path' ? outline(one.path) : one.bars.map((bar) => rectangle(bar.x, bar.y, bar.width, bar.height));
      page.pushOperators(
        pushGraphicsState(),
        // Millimetres downwards, as everything is measured here.
        concatTransformationMatrix(points, 0, 0, -points, x * points, (heightMm - y) * points),
        ...shape,
        fill(),
        popGraphicsState(),
      );
    }
  }
  return pdf.save();
}
