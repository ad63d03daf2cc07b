// The frame around a hit, and walking, checked without a browser: node --test tests/Scripts
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { PerspectiveCamera, Vector3 } from 'three';

globalThis.window = globalThis;
const listeners = /** @type {Record<string, Function[]>} */ ({});
globalThis.addEventListener = /** @type {any} */ ((name, act) => (listeners[name] ??= []).push(act));
/** @type {Function[]} */
let frames = [];
globalThis.requestAnimationFrame = /** @type {any} */ ((act) => frames.push(act));
const { Marker, outline } = await import('../../resources/js/bench/marker.js');
const { Walk } = await import('../../resources/js/canvas/walk.js');

const near = (a, b, by = 1e-6) => assert.ok(Math.abs(a - b) < by, `${a} is not ${b}`);
const lines = (path) => [...path.matchAll(/M([-\d.]+) ([-\d.]+)L([-\d.]+) ([-\d.]+)/g)].map((found) => found.slice(1).map(Number));

/** Looks north from 10 m south of the middle, 90 degrees high, 800 by 800 pixels. */
function camera() {
    const made = new PerspectiveCamera(90, 1, 0.1, 100);
    made.up.set(0, 0, 1);
    made.position.set(0, -10, 0);
    made.lookAt(0, 0, 0);
    made.updateProjectionMatrix();
    return made;
}

test('a box in front is drawn with twelve edges where the camera sees its corners', () => {
    const drawn = lines(outline([-1, -1, -1, 1, 1, 1], camera(), 800, 800));
    assert.equal(drawn.length, 12);
    const xs = [...new Set(drawn.flatMap(([x, , u]) => [x, u]))].sort((a, b) => a - b);
    // Its front is 9 m away: a metre is 400 / 9 pixels; its back 11 m.
    [400 - 400 / 9, 400 - 400 / 11, 400 + 400 / 11, 400 + 400 / 9].forEach((x, at) => near(xs[at], x, 0.06));
});

test('what is behind the camera is cut off, and a box wholly behind it is not drawn', () => {
    const cut = lines(outline([-1, -30, -1, 1, 10, 1], camera(), 800, 800));
    assert.equal(cut.length, 8, 'the four edges of the far end, and the four that come towards the camera');
    assert.ok(cut.flat().every(Number.isFinite));
    assert.equal(outline([-1, -30, -1, 1, -20, 1], camera(), 800, 800), '');
});

test('the frame follows the camera until nothing is marked', () => {
    globalThis.document = /** @type {any} */ ({
        createElementNS: () => ({
            classList: { add() {} },
            kept: '',
            setAttribute(_, value) {
                this.kept = value;
            },
            cloneNode() {
                return { ...this };
            },
        }),
    });
    /** @type {Record<string, Function>} */
    const heard = {};
    const canvas = {
        element: { clientWidth: 800, clientHeight: 800, addEventListener: (name, act) => (heard[name] = act) },
        viewpoint: { camera: camera() },
    };
    const marker = new Marker(/** @type {any} */ (canvas), /** @type {any} */ ({ append() {} }));
    marker.mark([-1, -1, -1, 1, 1, 1]);
    const before = /** @type {any} */ (marker.path).kept;
    assert.equal(lines(before).length, 12);
    canvas.viewpoint.camera.position.x = 4;
    heard['shelf:sight']();
    assert.notEqual(/** @type {any} */ (marker.path).kept, before);
    assert.equal(/** @type {any} */ (marker.ground).kept, /** @type {any} */ (marker.path).kept);
    marker.mark(null);
    assert.equal(/** @type {any} */ (marker.path).kept, '');
});

/** Somebody on a floor at 3 m that is 1 m higher from x = 2 on. */
async function walker() {
    frames = [];
    const position = new Vector3(0, 0, 20);
    const target = new Vector3(1, 0, 10);
    const viewpoint = {
        held: false,
        deep: { fov: 40 },
        camera: { position },
        controls: { target, enableZoom: true, update() {} },
        project() {},
        changed() {},
        set({ eye, target: [x, y, z] }) {
            position.set(...eye);
            target && this.controls.target.set(x, y, z);
        },
    };
    let ended = 0;
    const meet = async (from, way) => (way[2] < -0.5 ? { object: 1, at: [from[0], from[1], from[0] >= 2 ? 4 : 3] } : { object: 0 });
    const walk = new Walk(/** @type {any} */ (viewpoint), /** @type {any} */ (meet), () => ended++);
    return { walk, viewpoint, position, target, ended: () => ended };
}
const key = (name, more = {}) => ({
    key: name,
    ctrlKey: false,
    altKey: false,
    metaKey: false,
    shiftKey: false,
    target: { closest: () => null },
    preventDefault() {},
    stopPropagation() {},
    ...more,
});
async function run(seconds, from = 1000) {
    for (let now = from; now <= from + seconds * 1000; now += 50) {
        for (const frame of frames.splice(0)) frame(now);
        await new Promise((resolve) => setImmediate(resolve));
    }
}

test('walking starts at eye height over the floor, goes ahead at a steady pace, and turns', async () => {
    const { walk, viewpoint, position, target } = await walker();
    assert.equal(await walk.start(), '');
    near(position.z, 3 + 1.65, 1e-9);
    near(target.z, position.z, 1e-9);
    assert.equal(viewpoint.controls.enableZoom, false);
    const x = position.x;
    walk.key(/** @type {any} */ (key('w')), true);
    await run(0.5);
    near(position.x - x, 1.8 * 0.5, 0.1);
    near(position.y, 0, 1e-6);
    walk.key(/** @type {any} */ (key('w')), false);
    walk.key(/** @type {any} */ (key('ArrowLeft')), true);
    await run(0.5, 5000);
    assert.ok(target.y > position.y + 0.5, 'turned to the left, which is north');
    walk.key(/** @type {any} */ (key('ArrowLeft')), false);
    walk.end();
});

test('a step up is climbed, Shift is faster, and whoever types does not walk', async () => {
    const { walk, position, ended } = await walker();
    await walk.start();
    const x = position.x;
    walk.key(/** @type {any} */ (key('w', { target: { closest: () => ({}) } })), true);
    await run(0.3);
    near(position.x, x, 1e-9);
    walk.key(/** @type {any} */ (key('w', { shiftKey: true })), true);
    await run(1, 3000);
    assert.ok(position.x - x > 3, `${position.x - x} m in a second`);
    walk.key(/** @type {any} */ (key('w')), false);
    await new Promise((resolve) => setTimeout(resolve, 140));
    await run(1, 9000);
    walk.key(/** @type {any} */ (key('d')), true);
    await run(0.1, 12000);
    walk.key(/** @type {any} */ (key('d')), false);
    await new Promise((resolve) => setTimeout(resolve, 140));
    await run(1, 15000);
    near(position.z, 4 + 1.65, 0.02);
    walk.key(/** @type {any} */ (key('Escape')), true);
    assert.equal(walk.on, false);
    assert.equal(ended(), 1);
    walk.end();
    assert.equal(ended(), 1, 'it ends once');
});

test('walking says why it cannot start', async () => {
    const { walk, viewpoint } = await walker();
    viewpoint.held = true;
    assert.match(await walk.start(), /held/);
    viewpoint.held = false;
    walk.meet = async () => null;
    assert.match(await walk.start(), /nothing in the middle/);
    assert.equal(walk.on, false);
});
