// Measures versions of a mesh against it, and against what the best public simplifier makes of it with as many triangles.
// Reads JSON on standard input: {"mesh": {"places": [...], "corners": [...]}, "versions": [{"places", "corners"}]}; writes for each version
// how far it is from the mesh, both ways, and how far the other's is: {"mean", "most", "otherMean", "otherMost"}, metres.
import { MeshoptSimplifier } from 'meshoptimizer';
import { BufferAttribute, BufferGeometry, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';

const SAMPLES = 20_000;

let seed = 7;
const random = () => (seed = (seed * 16807) % 2147483647) / 2147483647;

function geometryOf({ places, corners }) {
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(Float32Array.from(places), 3));
    geometry.setIndex(new BufferAttribute(Uint32Array.from(corners), 1));
    return geometry;
}

/** Points on a surface, as many everywhere for its area. */
function pointsOn({ places, corners }) {
    const place = (at) => new Vector3(...places.slice(3 * at, 3 * at + 3));
    const areas = [];
    let whole = 0;
    for (let at = 0; at < corners.length; at += 3) {
        const [a, b, c] = [place(corners[at]), place(corners[at + 1]), place(corners[at + 2])];
        whole += b.sub(a).cross(c.sub(a)).length();
        areas.push(whole);
    }
    return Array.from({ length: SAMPLES }, () => {
        const sought = random() * whole;
        let [low, high] = [0, areas.length - 1];
        while (low < high) {
            const middle = (low + high) >> 1;
            if (areas[middle] < sought) low = middle + 1;
            else high = middle;
        }
        let [u, v] = [random(), random()];
        if (u + v > 1) [u, v] = [1 - u, 1 - v];
        const [a, b, c] = [0, 1, 2].map((corner) => place(corners[3 * low + corner]));
        return a.clone().addScaledVector(b.sub(a), u).addScaledVector(c.sub(a), v);
    });
}

function distances(from, to) {
    const tree = new MeshBVH(geometryOf(to));
    let [sum, most] = [0, 0];
    for (const point of pointsOn(from)) {
        const { distance } = tree.closestPointToPoint(point);
        sum += distance;
        most = Math.max(most, distance);
    }
    return { mean: sum / SAMPLES, most };
}

function apart(mesh, version) {
    if (version.corners.length === 0) return { mean: Infinity, most: Infinity };
    const [there, back] = [distances(mesh, version), distances(version, mesh)];
    return { mean: (there.mean + back.mean) / 2, most: Math.max(there.most, back.most) };
}

await MeshoptSimplifier.ready;
const chunks = [];
for await (const chunk of process.stdin) chunks.push(chunk);
const { mesh, versions } = JSON.parse(Buffer.concat(chunks).toString());
const places = Float32Array.from(mesh.places);
console.log(
    JSON.stringify(
        versions.map((version) => {
            const [corners] = MeshoptSimplifier.simplify(Uint32Array.from(mesh.corners), places, 3, version.corners.length, 1e9, []);
            const own = apart(mesh, version);
            const other = apart(mesh, { places: mesh.places, corners: [...corners] });
            return { ...own, otherMean: other.mean, otherMost: other.most, otherTriangles: corners.length / 3 };
        }),
    ),
);
