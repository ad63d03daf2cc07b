// Where clicks meet objects, against the library's own ray and plain meshes.
import assert from 'node:assert/strict';
import test from 'node:test';
import {
    BufferAttribute,
    BufferGeometry,
    DoubleSide,
    Matrix4,
    Mesh,
    MeshBasicMaterial,
    PerspectiveCamera,
    OrthographicCamera,
    Raycaster,
    Vector2,
} from 'three';
import { BOX } from '../../resources/js/canvas/detail.js';
import { hitOf } from '../../resources/js/canvas/hit.js';
import { Page } from '../../resources/js/canvas/pages.js';
import { spotOf } from '../../resources/js/canvas/spot.js';

let seed = 5;
const random = () => ((seed = (seed * 1103515245 + 12345) % 2147483648) / 2147483648) * 2 - 1;

/** Turned, mirrored and unevenly scaled placements of heaps of triangles; object 1 has two of them. */
function model() {
    const page = new Page('triangles', 'fine');
    const place = new Float32Array(16 * 4);
    const [facts, meshes] = [[], []];
    const object = [1, 2, 1, 3];
    object.forEach((number, index) => {
        const position = Int16Array.from({ length: 40 * 4 }, (_, at) => (at % 4 === 3 ? 0 : Math.round(random() * 32767)));
        const indices = Uint16Array.from({ length: 90 }, () => Math.floor(((random() + 1) / 2) * 39.99));
        const scale = [1 + random() * 0.5, 1 + random() * 0.5, 0.4];
        const piece = page.add({ position, normal: null, uv: null, colour: null, index: indices, material: 0 });
        const matrix = new Matrix4().makeRotationZ(random() * 3).multiply(new Matrix4().makeRotationX(random()));
        matrix.scale({ x: index === 1 ? -1.5 : 1, y: 1, z: 0.5 + index }).setPosition(random() * 3, random() * 3, random());
        place.set(matrix.clone().transpose().toArray().slice(0, 12), index * 16);
        facts.push({ levels: [{ pieces: [piece] }], scale, half: scale });
        const geometry = new BufferGeometry();
        const plain = Float32Array.from({ length: 120 }, (_, at) => (position[Math.floor(at / 3) * 4 + (at % 3)] / 32767) * scale[at % 3]);
        geometry.setAttribute('position', new BufferAttribute(plain, 3)).setIndex([...indices]);
        const mesh = new Mesh(geometry, new MeshBasicMaterial({ side: DoubleSide }));
        mesh.applyMatrix4(matrix);
        mesh.updateMatrixWorld();
        meshes.push({ number, mesh });
    });
    const placements = { count: 4, object, mesh: [0, 1, 2, 3], facts, place: { image: { data: place } } };
    return { placements, meshes };
}

test('a click meets an object where the library says that a ray does, whatever stands before it', () => {
    const { placements, meshes } = model();
    const flat = new OrthographicCamera(-4, 4, 3, -3, -50, 50);
    const deep = new PerspectiveCamera(50, 4 / 3, 0.02, 400);
    let met = 0;
    for (const camera of [deep, flat]) {
        camera.up.set(0, 0, 1);
        camera.position.set(6, -7, 5);
        camera.lookAt(0, 0, 0);
        camera.updateProjectionMatrix();
        const canvas = {
            viewpoint: { camera },
            element: { clientWidth: 400, clientHeight: 300 },
            placements,
            painter: { detail: { level: new Uint8Array(4) }, look: { cuts: [] } },
        };
        for (let click = 0; click < 300; click++) {
            const [x, y] = [200 + random() * 80, 150 + random() * 60];
            const ray = new Raycaster();
            camera.updateMatrixWorld();
            ray.setFromCamera(new Vector2((x / 400) * 2 - 1, 1 - (y / 300) * 2), camera);
            if (camera === flat) ray.ray.origin.addScaledVector(ray.ray.direction, -50);
            for (const number of [1, 2, 3]) {
                const own = meshes.filter((one) => one.number === number).map(({ mesh }) => mesh);
                const [expected] = ray.intersectObjects(own, false);
                const found = hitOf(canvas, number, x, y);
                assert.equal(found !== null, expected !== undefined, `${click} ${number}`);
                if (!found) continue;
                met++;
                assert.ok(expected.point.distanceTo({ x: found[0], y: found[1], z: found[2] }) < 1e-4);
                const [right, down] = spotOf(canvas, found);
                assert.ok(Math.abs(right - x) + Math.abs(down - y) < 1e-3, 'it is seen where the click was');
                // What a section cuts away is not met; behind it something may be.
                canvas.painter.look.cuts = [[0, 0, 1, found[2] - 1e-3]];
                const below = hitOf(canvas, number, x, y);
                assert.ok(below === null || below[2] <= found[2]);
                canvas.painter.look.cuts = [];
            }
        }
    }
    assert.ok(met > 100, `${met} met`);
});

test('an object whose triangles are not here is met on its box, and one that is nowhere not at all', () => {
    const { placements } = model();
    placements.place.image.data.set(new Matrix4().makeScale(2, 2, 2).transpose().toArray().slice(0, 12), 16);
    placements.facts[1].half = [1, 1, 1];
    const camera = new OrthographicCamera(-4, 4, 3, -3, -50, 50);
    camera.position.set(0, 0, 20);
    const canvas = {
        viewpoint: { camera },
        element: { clientWidth: 400, clientHeight: 300 },
        placements,
        painter: { detail: { level: new Uint8Array(4).fill(BOX) }, look: { cuts: [] } },
    };
    const found = hitOf(canvas, 2, 200 + 50, 150);
    assert.ok(found && Math.abs(found[0] - 1) < 1e-6 && Math.abs(found[1]) < 1e-6 && Math.abs(found[2] - 2) < 1e-6);
    assert.equal(hitOf(canvas, 2, 200 + 101, 150), null);
    assert.equal(hitOf(canvas, 99, 200, 150), null);
});
