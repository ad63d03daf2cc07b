// What the reader beside the page makes of answers, one after the other: node --test tests/Scripts
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { PlacementReader } from '../../resources/js/canvas/reader.js';

/** An answer of the server: meshes of 28 bytes, forms of 40, placements with the bytes of a kind together. */
function answer({ meshes = [], forms = [], placements = [] }) {
    const start = 16 + meshes.length * 28 + forms.length * 40;
    const view = new DataView(new ArrayBuffer(start + placements.length * 36));
    [3, meshes.length, forms.length, placements.length].forEach((value, n) => view.setUint32(n * 4, value, true));
    meshes.forEach(({ number, half = [1, 1, 1] }, n) => {
        [number, 5, 12, 0xff102030].forEach((value, word) => view.setUint32(16 + n * 28 + word * 4, value, true));
        half.forEach((value, axis) => view.setFloat32(16 + n * 28 + 16 + axis * 4, value, true));
    });
    forms.forEach(({ number, floats }, n) => {
        const at = 16 + meshes.length * 28 + n * 40;
        view.setUint32(at, number, true);
        floats.forEach((value, entry) => view.setFloat32(at + 4 + entry * 4, value, true));
    });
    placements.forEach(({ object, mesh, form, place }, index) => {
        [object, mesh, form, ...place.map((metres) => metres * 8192)].forEach((word, n) => {
            for (let byte = 0; byte < 4; byte++) view.setUint8(start + (n * 4 + byte) * placements.length + index, word >> (byte * 8));
        });
    });
    return view.buffer;
}

const plain = { number: 9, floats: [1, 0, 0, 0, 1, 0, 0, 0, 1] };

test('a form and a mesh that one answer says serve the next', () => {
    const reader = new PlacementReader();
    const first = reader.read(answer({ meshes: [{ number: 70, half: [3, 4, 12] }], forms: [plain] }));
    assert.deepEqual([first.parts, first.meshes.length, first.object.length], [3, 1, 0]);
    assert.deepEqual([first.meshes[0].pack, first.meshes[0].triangles, first.meshes[0].colour], [5, 12, 0xff102030]);
    const next = reader.read(answer({ placements: [{ object: 4, mesh: 70, form: 9, place: [1, -2, 0.5] }] }));
    assert.equal(next.meshes.length, 0);
    assert.deepEqual([...next.place], [1, 0, 0, 1, 0, 1, 0, -2, 0, 0, 1, 0.5, 4, 0, 0, 0]);
    assert.deepEqual([...next.sphere], [1, -2, 0.5, 13]);
});

test('meshes get slots in the order in which they come, whatever their numbers', () => {
    const reader = new PlacementReader();
    reader.read(answer({ meshes: [{ number: 70 }, { number: 3 }], forms: [plain] }));
    const place = [0, 0, 0];
    const { mesh, meshes } = reader.read(
        answer({
            meshes: [{ number: 3 }, { number: 8 }],
            placements: [8, 70, 3].map((number, n) => ({ object: n + 1, mesh: number, form: 9, place })),
        }),
    );
    assert.deepEqual(
        meshes.map(({ number }) => number),
        [8],
    );
    assert.deepEqual([...mesh], [2, 0, 1]);
});

test('an object that came keeps its places, one that comes brings all of its own', () => {
    const reader = new PlacementReader();
    const at = (object, x) => ({ object, mesh: 1, form: 9, place: [x, 0, 0] });
    const first = reader.read(answer({ meshes: [{ number: 1 }], forms: [plain], placements: [at(5, 1), at(5, 2), at(6, 3)] }));
    assert.deepEqual([...first.object], [5, 5, 6]);
    const next = reader.read(answer({ placements: [at(6, 9), at(7, 4), at(5, 9), at(7, 5)] }));
    assert.deepEqual([...next.object], [7, 7]);
    assert.deepEqual([next.place[3], next.place[19]], [4, 5]);
    assert.deepEqual([next.mesh.length, next.place.length, next.sphere.length], [2, 32, 8]);
});

test('objects that are here come anew only when that is asked for, and then only they', () => {
    const reader = new PlacementReader();
    const at = [1, 0, 2];
    reader.read(answer({ meshes: [{ number: 4 }], placements: [{ object: 7, mesh: 4, form: 0, place: at }] }));
    const other = () => answer({ meshes: [{ number: 5 }], placements: [7, 8].map((object) => ({ object, mesh: 5, form: 0, place: at })) });
    const anew = reader.read(other(), true);
    assert.deepEqual([[...anew.object], [...anew.mesh]], [[7], [1]]);
    assert.deepEqual([...reader.read(other()).object], [8]);
});
