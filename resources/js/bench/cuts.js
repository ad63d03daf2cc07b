/**
 * A section as the desk keeps it, in metres: sides of a box, least x, y, z, then greatest; planes by normal and distance.
 * @typedef {{on: boolean, box: number[] | null, planes: [number[], number][]}} Kept
 */

/**
 * All planes of a section as the canvas counts: normal and distance; none where it is off.
 * @param {Kept} section
 * @param {number[]} origin where the canvas counts from
 * @returns {number[][]}
 */
export function cutsOf({ on, box, planes }, origin) {
    if (!on) return [];
    const sides = box
        ? [0, 1, 2].flatMap((axis) => {
              const along = [0, 1, 2].map((each) => (each === axis ? 1 : 0));
              return [
                  [...along.map((one) => -one), origin[axis] - box[axis]],
                  [...along, box[axis + 3] - origin[axis]],
              ];
          })
        : [];
    const single = planes.map(([normal, distance]) => [
        ...normal,
        distance - normal[0] * origin[0] - normal[1] * origin[1] - normal[2] * origin[2],
    ]);
    return [...sides, ...single];
}
