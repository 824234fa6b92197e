/** Nose angle by shape letter, degrees; null is round. */
const SHAPES: Readonly<Record<string, number | null>> = {
  C: 80,
  D: 55,
  E: 75,
  K: 55,
  R: null,
  S: 90,
  T: 60,
  V: 35,
  W: 80,
};
const CLEARANCES: Readonly<Record<string, number>> = { N: 0, A: 3, B: 5, C: 7, P: 11, D: 15, E: 20, F: 25, G: 30 };
/** Thickness codes of metric inserts, mm: sixteenths of an inch. */
const THICKNESSES: Readonly<Record<string, number>> = {
  "01": 1.5875,
  T1: 1.984375,
  "02": 2.38125,
  T2: 2.778125,
  "03": 3.175,
  T3: 3.96875,
  "04": 4.7625,
  "05": 5.55625,
  "06": 6.35,
  "07": 7.9375,
  "09": 9.525,
};
const CIRCLES_MM = [3.96875, 4.7625, 5.55625, 6.35, 7.9375, 9.525, 12.7, 15.875, 19.05, 22.225, 25.4, 31.75];

export interface InsertAnswer {
  noseAngle: number | null;
  clearanceAngle: number;
  circle: number;
  thickness: number;
  noseRadius: number;
}
export type InsertRefusal = "letters" | "shape" | "clearance" | "digits" | "edge" | "thickness";

/** Nose angle that a designation's first letter says, degrees; null where it says none. */
export const noseAngleOf = (designation: string): number | null =>
  SHAPES[designation.trim().slice(0, 1).toUpperCase()] ?? null;

/** Length of the cutting edge that a circle gives, mm. */
function edgeMm(shape: string, noseAngle: number, circle: number): number {
  if (shape === "T") return circle * Math.sqrt(3);
  if (shape === "W") return 0.684 * circle;
  return shape === "S" ? circle : circle / Math.sin((noseAngle * Math.PI) / 180);
}

/** Codes drop what is behind the point; a triangle's 10.998 is an 11. */
const coded = (mm: number): number => Math.floor(mm + 0.05);

function readMetric(
  shape: string,
  noseAngle: number | null,
  rest: string,
): Omit<InsertAnswer, "noseAngle" | "clearanceAngle"> | InsertRefusal {
  const [, edge, thick, nose] = /^(\d\d)(\d\d|T\d)(\d\d|M0)?$/.exec(rest) ?? [];
  if (edge === undefined || thick === undefined) return "digits";
  const thickness = THICKNESSES[thick];
  if (thickness === undefined) return "thickness";
  if (noseAngle === null) return { circle: Number(edge), thickness, noseRadius: Number(edge) / 2 };
  const circle = CIRCLES_MM.find((mm) => coded(edgeMm(shape, noseAngle, mm)) === Number(edge));
  if (circle === undefined) return "edge";
  return nose === undefined || nose === "M0" ? "digits" : { circle, thickness, noseRadius: Number(nose) / 10 };
}

function readInch(
  noseAngle: number | null,
  rest: string,
): Omit<InsertAnswer, "noseAngle" | "clearanceAngle"> | InsertRefusal {
  const [, eighths, sixteenths, sixtyFourths] = /^(\d(?:\.\d)?)(\d(?:\.\d)?)(\.?\d)?$/.exec(rest) ?? [];
  if (eighths === undefined || sixteenths === undefined) return "digits";
  const circle = Number(eighths) / 8;
  if (noseAngle === null) return { circle, thickness: Number(sixteenths) / 16, noseRadius: circle / 2 };
  return sixtyFourths === undefined
    ? "digits"
    : { circle, thickness: Number(sixteenths) / 16, noseRadius: Number(sixtyFourths) / 64 };
}

/**
 * What an insert's designation says (ISO 1832 and its inch form): angles in degrees, lengths in mm or inch. Spaces and
 * case do not matter, and what follows a hyphen is the maker's own. A refusal names the part that cannot be read.
 */
export function readInsert(code: string, system: "metric" | "inch"): InsertAnswer | InsertRefusal {
  const [designation = ""] = code.toUpperCase().replaceAll(" ", "").split("-");
  const [, shape = "", clearance = "", rest = ""] = /^([A-Z])([A-Z])[A-Z][A-Z](.*)$/.exec(designation) ?? [];
  if (shape === "") return "letters";
  const noseAngle = SHAPES[shape];
  if (noseAngle === undefined) return "shape";
  const clearanceAngle = CLEARANCES[clearance];
  if (clearanceAngle === undefined) return "clearance";
  const read = system === "metric" ? readMetric(shape, noseAngle, rest) : readInch(noseAngle, rest);
  return typeof read === "string" ? read : { noseAngle, clearanceAngle, ...read };
}
