// Objects that get other meshes while a page is open: node --test tests/Scripts
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { changedIn, Meshed } from '../../resources/js/canvas/meshed.js';
import { Placements } from '../../resources/js/canvas/placements.js';

const row = (number) => ({ number, pack: number, triangles: 10 * number, colour: 0xffffffff, half: [1, 1, 1] });

/** Placements of objects, one or several each, with what the shaders read of them. */
function read(meshes, objects) {
    const object = Uint32Array.from(objects.map(([number]) => number));
    const mesh = Uint32Array.from(objects.map(([, slot]) => slot));
    const place = new Float32Array(objects.length * 16);
    const sphere = new Float32Array(objects.length * 4);
    objects.forEach(([number, slot, x], n) => {
        place.set([1, 0, 0, x, 0, 1, 0, 0, 0, 0, 1, 0, number, slot, 0, 0], n * 16);
        sphere.set([x, 0, 0, 2], n * 4);
    });
    return { parts: 1, meshes: meshes.map(row), object, mesh, place, sphere };
}

function model() {
    const placements = new Placements();
    placements.append(
        read(
            [3, 4],
            [
                [11, 0, 1],
                [12, 1, 2],
                [12, 1, 3],
                [14, 0, 4],
            ],
        ),
    );
    return placements;
}

test('what is drawn with another mesh than it should be is found, once for each object', () => {
    const meshes = Uint32Array.from({ length: 15 }, () => 0);
    [meshes[11], meshes[12], meshes[14]] = [3, 9, 4];
    assert.deepEqual([...changedIn(model(), meshes)], [12, 14]);
    // An object that is gone, or that nothing is said of, stays as it is.
    assert.deepEqual([...changedIn(model(), new Uint32Array(2))], []);
});

test('what comes anew stands where it stood, all of its placements, and nothing else changes', () => {
    const placements = model();
    const { count } = placements;
    assert.deepEqual(
        placements.replace(
            read(
                [9],
                [
                    [12, 2, 20],
                    [12, 2, 30],
                    [99, 2, 5],
                ],
            ),
        ),
        [1, 2],
    );
    assert.equal(placements.count, count);
    assert.deepEqual([...placements.mesh.slice(0, count)], [0, 2, 2, 0]);
    assert.deepEqual(
        [0, 1, 2, 3].map((at) => placements.sphere[at * 4]),
        [1, 20, 30, 4],
    );
    const { data } = placements.place.image;
    const said = [0, 1, 2, 3].map((at) => [3, 12, 13].map((entry) => data[at * 16 + entry]));
    assert.deepEqual(said, [
        [1, 11, 0],
        [20, 12, 2],
        [30, 12, 2],
        [4, 14, 0],
    ]);
    assert.equal(placements.facts[placements.slots.get(9)].triangles, 90);
});

/** A canvas that counts what it is asked for. */
function canvas() {
    const asked = [];
    const placements = model();
    return {
        asked,
        loading: false,
        stale: false,
        placements,
        painter: { detail: { level: new Uint8Array(placements.capacity) } },
        packs: { settle: () => undefined },
        arriving: {
            meshes: async () => (asked.push('meshes'), Uint32Array.from({ length: 15 }, (_, number) => (number === 14 ? 4 : 0))),
            some: async (numbers, came) => {
                asked.push([...numbers]);
                came(read([], [[14, 1, 4]]));
            },
        },
    };
}

test('a page asks only when something has changed since it was opened, and draws it anew', async () => {
    const page = canvas();
    const meshed = new Meshed(page);
    meshed.hear(5);
    meshed.hear(5);
    await meshed.asking;
    assert.deepEqual(page.asked, []);
    meshed.hear(6);
    await meshed.asking;
    assert.deepEqual(page.asked, ['meshes', [14]]);
    assert.equal(page.placements.mesh[3], 1);
    assert.equal(page.painter.detail.level[3], 255, 'how coarse it was drawn says nothing of another mesh');
    assert.ok(page.stale);
});

test('what changes while objects are on their way is looked after once they are here, and only then', async () => {
    const page = canvas();
    page.loading = true;
    const meshed = new Meshed(page);
    meshed.hear(5);
    meshed.hear(6);
    await meshed.asking;
    assert.deepEqual(page.asked, []);
    page.loading = false;
    meshed.loaded();
    await meshed.asking;
    assert.deepEqual(page.asked, ['meshes', [14]]);
    meshed.loaded();
    await meshed.asking;
    assert.equal(page.asked.length, 2);
});

test('a server that does not answer leaves things as they are, and the next time it is asked again', async () => {
    const page = canvas();
    const meshed = new Meshed(page);
    const { meshes } = page.arriving;
    page.arriving.meshes = async () => Promise.reject(new Error('away'));
    meshed.hear(1);
    meshed.hear(2);
    await meshed.asking;
    assert.equal(page.placements.mesh[3], 0);
    page.arriving.meshes = meshes;
    meshed.hear(3);
    await meshed.asking;
    assert.equal(page.placements.mesh[3], 1);
});
