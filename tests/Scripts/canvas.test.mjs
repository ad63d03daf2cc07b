// What the canvas computes before it draws, checked without a browser: node --test tests/Scripts
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { PerspectiveCamera, Vector3 } from 'three';
import { Order } from '../../resources/js/canvas/order.js';
import { Packs, unscaled } from '../../resources/js/canvas/packs.js';
import { versionsIn } from '../../resources/js/canvas/versions.js';
import { Page } from '../../resources/js/canvas/pages.js';
import { Placements } from '../../resources/js/canvas/placements.js';
import { PlacementReader } from '../../resources/js/canvas/reader.js';

let seed = 1;
const random = (low = 0, high = 1) => {
    seed = (seed * 1103515245 + 12345) & 0x7fffffff;
    return low + ((high - low) * seed) / 0x7fffffff;
};
const identity = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0];
const movedTo = (x, y, z) => [1, 0, 0, x, 0, 1, 0, y, 0, 0, 1, z];

/** Bytes as the server packs them, each placement with a form of its own. */
function packed(meshes, placements, parts = 1) {
    const start = 16 + meshes.length * 28 + placements.length * 40;
    const view = new DataView(new ArrayBuffer(start + placements.length * 36));
    [parts, meshes.length, placements.length, placements.length].forEach((value, n) => view.setUint32(n * 4, value, true));
    meshes.forEach(({ number, pack = 1, triangles = 12, colour = 0xff8899aa, half = [1, 1, 1] }, index) => {
        const at = 16 + index * 28;
        [number, pack, triangles, colour].forEach((value, n) => view.setUint32(at + n * 4, value, true));
        half.forEach((value, n) => view.setFloat32(at + 16 + n * 4, value, true));
    });
    placements.forEach(({ object, mesh, transform = identity }, index) => {
        const at = 16 + meshes.length * 28 + index * 40;
        view.setUint32(at, index + 4, true);
        [0, 1, 2, 4, 5, 6, 8, 9, 10].forEach((from, n) => view.setFloat32(at + 4 + n * 4, transform[from], true));
        const words = [object, mesh, index + 4, ...[3, 7, 11].map((from) => transform[from] * 8192)];
        words.forEach((word, n) => {
            for (let byte = 0; byte < 4; byte++) view.setUint8(start + (n * 4 + byte) * placements.length + index, word >> (byte * 8));
        });
    });
    return view.buffer;
}

/** Placements that read answers themselves, which the canvas has done beside the page. */
function readable() {
    const placements = new Placements();
    const reader = new PlacementReader();
    const read = (/** @type {ArrayBuffer} */ buffer) => {
        const answer = reader.read(buffer);
        placements.append(answer);
        return answer.parts;
    };
    return Object.assign(placements, { read });
}

test('placements are read with their meshes, and an object that is here already is not doubled', () => {
    const placements = readable();
    const parts = placements.read(
        packed(
            [{ number: 7, half: [1, 2, 3] }],
            [
                { object: 3, mesh: 7, transform: movedTo(10, 20, 30) },
                { object: 3, mesh: 7, transform: movedTo(50, 0, 0) },
                { object: 9, mesh: 7 },
            ],
            5,
        ),
    );
    assert.equal(parts, 5);
    assert.equal(placements.count, 3);
    assert.deepEqual([...placements.object.slice(0, 3)], [3, 3, 9]);
    assert.deepEqual([placements.has(3), placements.has(9), placements.has(12), placements.has(1e6)], [true, true, false, false]);
    assert.deepEqual([...placements.sphere.slice(0, 3)], [10, 20, 30]);
    assert.ok(Math.abs(placements.sphere[3] - Math.hypot(1, 2, 3)) < 1e-5);
    assert.deepEqual(placements.facts[0].half, [1, 2, 3]);
    placements.read(
        packed(
            [{ number: 7 }],
            [
                { object: 3, mesh: 7 },
                { object: 9, mesh: 7 },
                { object: 12, mesh: 7 },
            ],
        ),
    );
    assert.equal(placements.count, 4);
    assert.equal(placements.facts.length, 1);
});

test('a record whose mesh is unknown is passed over', () => {
    const placements = readable();
    placements.read(
        packed(
            [{ number: 1 }],
            [
                { object: 1, mesh: 99 },
                { object: 2, mesh: 1 },
            ],
        ),
    );
    assert.deepEqual([placements.count, placements.has(1)], [1, false]);
});

test('room grows without losing what is there', () => {
    const placements = readable();
    for (let round = 0; round < 12; round++) {
        placements.read(
            packed(
                [{ number: round + 1 }],
                Array.from({ length: 1000 }, (_, n) => ({
                    object: round * 1000 + n + 1,
                    mesh: round + 1,
                    transform: movedTo(round * 1000 + n, 0, 0),
                })),
            ),
        );
    }
    assert.equal(placements.count, 12000);
    for (const index of [0, 999, 4095, 4096, 11999]) {
        assert.equal(placements.object[index], index + 1);
        assert.equal(placements.sphere[index * 4], index);
        assert.equal(placements.place.image.data[index * 16 + 3], index);
        assert.equal(placements.place.image.data[index * 16 + 12], index + 1);
    }
});

test('bounds are those of the boxes that pass the test', () => {
    const placements = readable();
    placements.read(
        packed(
            [{ number: 1 }],
            [
                { object: 1, mesh: 1, transform: movedTo(0, 0, 0) },
                { object: 2, mesh: 1, transform: movedTo(9, 8, 7) },
                { object: 3, mesh: 1, transform: [0, -2, 0, 100, 3, 0, 0, 0, 0, 0, 1, 0] },
            ],
        ),
    );
    const near = placements.bounds((index) => placements.object[index] < 3);
    assert.deepEqual(
        [near.min.toArray(), near.max.toArray()],
        [
            [-1, -1, -1],
            [10, 9, 8],
        ],
    );
    const turned = placements.bounds((index) => placements.object[index] === 3);
    assert.deepEqual(
        [turned.min.toArray(), turned.max.toArray()],
        [
            [98, -3, -1],
            [102, 3, 1],
        ],
    );
    assert.ok(placements.bounds(() => false).isEmpty());
});

/** A scene of random boxes, a camera that looks at it, and the order of both. */
function ordered(count, states) {
    const placements = readable();
    placements.read(
        packed(
            [{ number: 1 }, { number: 2, half: [0.1, 0.1, 0.1] }],
            Array.from({ length: count }, (_, n) => ({
                object: n + 1,
                mesh: random() < 0.5 ? 1 : 2,
                transform: movedTo(random(-60, 60), random(-60, 60), random(-20, 20)),
            })),
        ),
    );
    const camera = new PerspectiveCamera(40, 1.2, 0.1, 500);
    camera.up.set(0, 0, 1);
    camera.position.set(70, -50, 30);
    camera.lookAt(new Vector3(0, 0, 0));
    camera.updateMatrixWorld();
    const order = new Order();
    order.sort(placements, states, camera, 640);
    return { placements, order, camera };
}

test('the order goes from large to small in the picture, each placement once', () => {
    const { placements, order } = ordered(3000, new Uint8Array(3001).fill(5));
    const list = [...order.list.slice(0, order.count)];
    assert.equal(new Set(list).size, list.length);
    assert.ok(list.length > 500 && list.length < placements.count);
    for (let at = 1; at < list.length; at++) {
        // Within one step of an eighth of a doubling the order is free.
        assert.ok(order.size[list[at]] <= order.size[list[at - 1]] * 2 ** (1 / 12) + 1e-6);
    }
});

test('what is hidden or outside the picture is not in the order, and what stands in it is', () => {
    const states = new Uint8Array(2001).map((_, n) => (n % 3 === 0 ? 0 : 5 | 16));
    const { placements, order, camera } = ordered(2000, states);
    const inside = new Set(order.list.slice(0, order.count));
    const point = new Vector3();
    let seen = 0;
    for (let index = 0; index < placements.count; index++) {
        if (placements.object[index] % 3 === 0) {
            assert.ok(!inside.has(index));
            continue;
        }
        point.fromArray(placements.sphere, index * 4).project(camera);
        if (Math.abs(point.x) < 0.98 && Math.abs(point.y) < 0.98 && point.z < 1 && order.size[index] > 1) {
            seen++;
            assert.ok(inside.has(index), `placement ${index} stands in the picture`);
        }
    }
    assert.ok(seen > 200);
});

test('meshes share pages, keep their own vertices, and are drawn in one list', () => {
    const page = new Page('triangles');
    const source = (count, shift) => ({
        position: new Int16Array(count * 4).fill(shift),
        normal: null,
        uv: null,
        colour: null,
        index: Uint16Array.from({ length: count }, (_, n) => n),
        material: shift,
    });
    const first = page.add(source(6, 1));
    const second = page.add(source(9, 2));
    assert.deepEqual([first.start, first.count, second.start, second.count, second.triangles], [0, 6, 6, 9, 3]);
    const index = page.geometry.index.array;
    assert.deepEqual([...index.slice(6, 15)], [6, 7, 8, 9, 10, 11, 12, 13, 14]);
    assert.deepEqual([page.geometry.getAttribute('position').array[23], page.geometry.getAttribute('position').array[24]], [1, 2]);
    assert.deepEqual([...page.geometry.getAttribute('color').array.slice(0, 4)], [255, 255, 255, 255]);
    for (let n = 0; n < 3000; n++) page.draw(n, n % 2 ? first : second);
    assert.ok(page.ready());
    assert.equal(page.object._multiDrawCount, 3000);
    assert.deepEqual([page.object._multiDrawStarts[2999], page.object._multiDrawCounts[2998]], [0, 9]);
    assert.deepEqual([...page.entries.image.data.slice(5998, 6000)], [2999, 1]);
    page.clear();
    assert.ok(!page.ready());
    assert.ok(!page.hasRoom(300000, 3));
    const own = new Page('triangles').add(source(300000, 3));
    assert.equal(own.count, 300000);
});

/** A pack with one cube, as the server writes it. */
function cubePack(mesh, material, version = undefined) {
    const corners = [];
    const index = [];
    for (const axis of [0, 1, 2])
        for (const side of [-1, 1]) {
            const first = corners.length / 4;
            for (const [a, b] of [
                [-1, -1],
                [1, -1],
                [1, 1],
                [-1, 1],
            ]) {
                const corner = [0, 0, 0];
                corner[axis] = side * 32767;
                corner[(axis + 1) % 3] = a * 32767;
                corner[(axis + 2) % 3] = b * 32767;
                corners.push(...corner, 0);
            }
            index.push(first, first + 1, first + 2, first, first + 2, first + 3);
        }
    const positions = new Uint8Array(Int16Array.from(corners).buffer);
    const indices = new Uint8Array(Uint16Array.from(index).buffer);
    const json = {
        nodes: [{ mesh: 0, scale: [1, 1, 1], extras: { mesh, version } }],
        meshes: [{ primitives: [{ attributes: { POSITION: 0 }, indices: 1, mode: 4, extras: { material } }] }],
        accessors: [
            { bufferView: 0, componentType: 5122, count: 24 },
            { bufferView: 1, componentType: 5123, count: 36 },
        ],
        bufferViews: [{ byteOffset: 0 }, { byteOffset: positions.length }],
    };
    let text = JSON.stringify(json);
    text += ' '.repeat((4 - (text.length % 4)) % 4);
    const bytes = new Uint8Array(28 + text.length + positions.length + indices.length);
    new DataView(bytes.buffer).setUint32(12, text.length, true);
    bytes.set(new TextEncoder().encode(text), 20);
    bytes.set(positions, 28 + text.length);
    bytes.set(indices, 28 + text.length + positions.length);
    return bytes.buffer;
}

/** Coarser versions as the server tells them. */
function versionsPacked(versions) {
    const view = new DataView(new ArrayBuffer(24 * versions.length));
    versions.forEach(({ mesh, pack, triangles, error, coarse = false }, at) => {
        [mesh, pack, (triangles | (coarse ? 0x80000000 : 0)) >>> 0, 9].forEach((value, n) => view.setUint32(24 * at + 4 * n, value, true));
        view.setFloat32(24 * at + 16, error, true);
    });
    return view.buffer;
}

test('a pack gives its meshes to the placements, also when it comes before them', () => {
    const placements = readable();
    const packs = new Packs('/packs', placements, () => {});
    packs.open(cubePack(4, 6));
    assert.equal(packs.waiting.length, 1);
    placements.read(packed([{ number: 4 }], [{ object: 1, mesh: 4 }]));
    packs.settle();
    const [piece] = placements.facts[0].levels[0].pieces;
    assert.deepEqual([piece.count, piece.triangles, piece.material, packs.waiting.length], [36, 12, 6, 0]);
    packs.open(cubePack(4, 6));
    assert.equal(packs.pages[0].vertices, 24, 'a mesh that is here is not stored again');
});

test('the sharp edges of a cube are its twelve', () => {
    const placements = readable();
    placements.read(packed([{ number: 4 }], [{ object: 1, mesh: 4 }]));
    const packs = new Packs('/packs', placements, () => {});
    packs.open(cubePack(4, 0));
    const edges = packs.edges(placements.facts[0], placements.facts[0].levels[0]);
    assert.equal(
        edges.reduce((sum, piece) => sum + piece.count / 2, 0),
        12,
    );
    assert.equal(packs.edges(placements.facts[0], placements.facts[0].levels[0]), edges, 'they are found once');
});

test('versions of a mesh come with their packs, before or after they are known, and lie on pages of their own', () => {
    const placements = readable();
    const packs = new Packs('/packs', placements, () => {});
    placements.read(packed([{ number: 4, pack: 1 }], [{ object: 1, mesh: 4 }]));
    packs.open(cubePack(4, 6, 1));
    assert.equal(packs.waiting.length, 1, 'nobody has said yet that there is such a version');
    placements.setVersions(versionsIn(versionsPacked([{ mesh: 4, pack: 2, triangles: 6, error: 0.25, coarse: true }])));
    packs.settle();
    const [facts] = placements.facts;
    assert.deepEqual([facts.coarse, facts.levels.length, packs.waiting.length, facts.levels[0].pieces], [1, 2, 0, null]);
    assert.ok(Math.abs(facts.levels[1].rough - 0.25 / Math.hypot(...facts.half)) < 1e-6);
    packs.open(cubePack(4, 6));
    assert.deepEqual(
        packs.pages.map(({ shelf }) => shelf),
        ['coarse', 'fine'],
    );
    // Told once more, with one that was made meanwhile: what is here stays.
    const more = [
        { mesh: 4, pack: 2, triangles: 6, error: 0.25, coarse: true },
        { mesh: 4, pack: 3, triangles: 2, error: 0.5 },
    ];
    const { pieces } = facts.levels[1];
    placements.setVersions(versionsIn(versionsPacked(more)));
    assert.deepEqual([facts.levels.length, facts.levels[1].pieces === pieces, facts.levels[2].triangles], [3, true, 2]);
});

test('pages that recent pictures did not need are given back, the oldest first, and come again when they are needed', () => {
    const placements = readable();
    const packs = new Packs('/packs', placements, () => {});
    placements.read(packed([{ number: 4, pack: 1 }], [{ object: 1, mesh: 4 }]));
    placements.setVersions(versionsIn(versionsPacked([{ mesh: 4, pack: 2, triangles: 6, error: 0.25, coarse: true }])));
    packs.open(cubePack(4, 6));
    packs.here.add(1);
    packs.open(cubePack(4, 6, 1));
    packs.here.add(2);
    const [fine, coarse] = packs.pages;
    const [facts] = placements.facts;
    packs.edges(facts, facts.levels[0]);
    packs.picture = 10;
    [fine.picture, coarse.picture, packs.pages[2].picture] = [3, 10, 2];
    packs.giveBack(packs.bytes);
    assert.equal(packs.pages.length, 3, 'there is room for all');
    packs.giveBack(packs.bytes - 1);
    assert.deepEqual(
        packs.pages.map(({ shelf }) => shelf),
        ['fine', 'coarse'],
    );
    packs.here.add(1);
    packs.giveBack(0);
    assert.deepEqual(packs.pages, [coarse], 'what this picture needs stays');
    assert.deepEqual([facts.levels[0].pieces, facts.levels[0].edges, packs.here.has(1), packs.here.has(2)], [null, null, false, true]);
    packs.want(1, 5);
    assert.ok(packs.wanted.has(1));
    packs.open(cubePack(4, 6));
    assert.equal(facts.levels[0].pieces[0].count, 36);
});

test('packs are fetched in the order of what they add, a few at a time, and a failing one is given up', async () => {
    const asked = [];
    let arrived = 0;
    const real = globalThis.fetch;
    globalThis.fetch = async (address) => {
        asked.push(Number(address.split('/').pop()));
        return address.endsWith('/13') ? { ok: false, status: 500 } : { ok: true, arrayBuffer: async () => cubePack(1, 0) };
    };
    try {
        const packs = new Packs('/packs', new Placements(), () => arrived++);
        for (let pack = 1; pack <= 10; pack++) packs.want(pack, pack * 10);
        packs.want(3, 1000);
        packs.fetchNext();
        assert.deepEqual(asked, [3, 10, 9, 8, 7, 6]);
        await new Promise((resolve) => setTimeout(resolve, 20));
        packs.fetchNext();
        await new Promise((resolve) => setTimeout(resolve, 20));
        assert.deepEqual(asked.slice(6), [5, 4, 2, 1]);
        packs.want(3, 5);
        assert.equal(packs.wanted.has(3), false, 'what is here is not wanted');
        packs.startWanting();
        for (let round = 0; round < 8; round++) {
            packs.want(13, 1);
            packs.fetchNext();
            await new Promise((resolve) => setTimeout(resolve, 5));
        }
        assert.equal(asked.filter((pack) => pack === 13).length, 4);
        assert.ok(arrived >= 12);
        assert.equal(packs.missing, 0);
    } finally {
        globalThis.fetch = real;
    }
});

test('normals of a node that is scaled unevenly are as they were', () => {
    for (let round = 0; round < 200; round++) {
        const way = new Vector3(random(-1, 1), random(-1, 1), random(-1, 1)).normalize();
        const scale = [random(1, 60), random(1, 60), random(1, 60)];
        const sent = new Vector3(...way.toArray().map((part, axis) => part * scale[axis])).normalize();
        const [x, y, z, w] = unscaled(Int16Array.from([...sent.toArray().map((part) => Math.round(part * 32767)), 0]), scale);
        assert.equal(w, 0);
        assert.ok(new Vector3(x, y, z).normalize().angleTo(way) < 0.01, `${way.toArray()} by ${scale}`);
    }
});
