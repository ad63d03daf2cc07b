// Counts a .glb independently of the product, walking its scene with plain 4 by 4 matrices, and prints the counts and the public
// validator's findings.
import { readFileSync } from 'node:fs';
import validator from 'gltf-validator';

const file = readFileSync(process.argv[2]);
const report = await validator.validateBytes(new Uint8Array(file), { maxIssues: 50 });
const json = JSON.parse(file.subarray(20, 20 + file.readUInt32LE(12)).toString());
const binary = 28 + file.readUInt32LE(12);
const times = (a, b) =>
    Array.from({ length: 16 }, (_, at) => [0, 1, 2, 3].reduce((sum, k) => sum + a[k * 4 + (at % 4)] * b[Math.floor(at / 4) * 4 + k], 0));
const local = ({ matrix, translation: t = [0, 0, 0], rotation: [x, y, z, w] = [0, 0, 0, 1], scale: s = [1, 1, 1] }) =>
    matrix ?? [
        (1 - 2 * (y * y + z * z)) * s[0],
        2 * (x * y + z * w) * s[0],
        2 * (x * z - y * w) * s[0],
        0,
        2 * (x * y - z * w) * s[1],
        (1 - 2 * (x * x + z * z)) * s[1],
        2 * (y * z + x * w) * s[1],
        0,
        2 * (x * z + y * w) * s[2],
        2 * (y * z - x * w) * s[2],
        (1 - 2 * (x * x + y * y)) * s[2],
        0,
        t[0],
        t[1],
        t[2],
        1,
    ];
const found = { objects: 0, parts: 0, groups: 0, triangles: 0, vertices: 0, min: [1e9, 1e9, 1e9], max: [-1e9, -1e9, -1e9] };
const meshes = new Set();
const walk = (index, above) => {
    const node = json.nodes[index];
    const world = times(above, local(node));
    found.objects++;
    if (node.mesh === undefined && node.children && node.camera === undefined) found.groups++;
    if (node.mesh !== undefined) {
        found.parts++;
        meshes.add(node.mesh);
        for (const piece of json.meshes[node.mesh].primitives) {
            found.triangles += json.accessors[piece.indices].count / 3;
            const accessor = json.accessors[piece.attributes.POSITION];
            found.vertices += accessor.count;
            const start = binary + json.bufferViews[accessor.bufferView].byteOffset;
            for (let vertex = 0; vertex < accessor.count; vertex++) {
                const [x, y, z] = [0, 4, 8].map((offset) => file.readFloatLE(start + vertex * 12 + offset));
                const [a, b, c] = [0, 1, 2].map((row) => world[row] * x + world[row + 4] * y + world[row + 8] * z + world[row + 12]);
                [a, -c, b].forEach((value, axis) => {
                    found.min[axis] = Math.min(found.min[axis], value);
                    found.max[axis] = Math.max(found.max[axis], value);
                });
            }
        }
    }
    for (const child of node.children ?? []) walk(child, world);
};
if (process.argv[3] !== 'validate')
    for (const root of json.scenes[json.scene ?? 0].nodes) walk(root, [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1]);
process.stdout.write(
    JSON.stringify({
        ...found,
        meshes: meshes.size,
        materials: json.materials?.length ?? 0,
        textures: json.textures?.length ?? 0,
        errors: report.issues.numErrors,
        warnings: report.issues.numWarnings,
        messages: report.issues.messages.slice(0, 5),
    }),
);
