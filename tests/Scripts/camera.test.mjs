// The viewpoint and the keys, checked without a browser: node --test tests/Scripts
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { Box3, OrthographicCamera, Vector3 } from 'three';

globalThis.window = globalThis;
globalThis.matchMedia = () => ({ matches: true });
const { Viewpoint } = await import('../../resources/js/canvas/camera.js');
const { Order } = await import('../../resources/js/canvas/order.js');
const { keyOf, shownKey } = await import('../../resources/js/bench/keys.js');

/** An element that only takes listeners. */
const element = () => ({
    addEventListener() {},
    removeEventListener() {},
    style: {},
    getRootNode: () => ({ addEventListener() {}, removeEventListener() {} }),
    ownerDocument: { addEventListener() {}, removeEventListener() {} },
    clientWidth: 800,
    clientHeight: 600,
});

function viewpoint() {
    const made = new Viewpoint(/** @type {any} */ (element()), () => {});
    made.resize(800, 600);
    made.all = new Box3(new Vector3(-30, -20, -4), new Vector3(30, 20, 12));
    made.set({ eye: [40, -50, 30], target: [0, 0, 1], fov: 40 }, true);
    made.clip();
    return made;
}
const corners = (box) =>
    [0, 1, 2, 3, 4, 5, 6, 7].map(
        (n) => new Vector3(n & 1 ? box.max.x : box.min.x, n & 2 ? box.max.y : box.min.y, n & 4 ? box.max.z : box.min.z),
    );
let seed = 7;
const random = () => (seed = (seed * 1103515245 + 12345) & 0x7fffffff) / 0x7fffffff;
const near = (a, b, by = 1e-6) => assert.ok(Math.abs(a - b) < by, `${a} is not ${b}`);

test('a framed box is in the picture and fills it, from any direction, in perspective and parallel', () => {
    for (const parallel of [false, true]) {
        for (const from of [
            [1, -1, 0.5],
            [0, -1, 0],
            [-1, 0.2, 2],
            [0, -1e-4, 1],
        ]) {
            const made = viewpoint();
            made.project(parallel);
            const box = new Box3(new Vector3(3, -9, 0), new Vector3(9, 4, 7));
            made.fit(box, true, from);
            made.clip();
            const reach = Math.max(...corners(box).flatMap((corner) => corner.project(made.camera).toArray().slice(0, 2).map(Math.abs)));
            assert.ok(reach <= 1 && reach > 0.8, `${parallel ? 'parallel' : 'perspective'} from ${from}: ${reach}`);
        }
    }
});

test('a camera that leans, and a plan that is turned, are as they were kept until somebody turns them', () => {
    for (const parallel of [{}, { tall: 30 }]) {
        for (const [way, up] of [
            [
                [0.6, 0.8, 0],
                [0.48, -0.36, 0.8],
            ],
            [
                [0, 0, -1],
                [1, 0, 0],
            ],
            [
                [0, 0, -1],
                [-0.6, 0.8, 0],
            ],
            [
                [0, 0, 1],
                [0.6, 0.8, 0],
            ],
            [
                [0, 1, 0],
                [0, 0, -1],
            ],
        ]) {
            const made = viewpoint();
            const target = way.map((value) => 5 + value * 20);
            made.set({ eye: [5, 5, 5], target, fov: 40, up, ...parallel }, true);
            const seen = made.sight();
            up.forEach((value, axis) => near(seen.up[axis], value, 1e-4));
            way.forEach((value, axis) => near(seen.target[axis] - seen.eye[axis], value, 1e-4));
            // What is kept is set again the same.
            const again = viewpoint();
            again.set(made.get(), true);
            up.forEach((value, axis) => near(again.sight().up[axis], value, 1e-4));
            made.straighten();
            assert.equal(made.leans, false);
            made.set({ eye: [40, -50, 30], target: [0, 0, 1], fov: 40 }, true);
            assert.equal(made.leans, false);
        }
    }
});

test('turning to parallel and back keeps how much of the target is in the picture', () => {
    const made = viewpoint();
    const tall = made.tall;
    made.project(true);
    assert.ok(made.isParallel);
    near(made.tall, tall, 1e-9);
    made.resize(500, 700);
    near(made.tall, tall, 1e-9);
    made.project(false);
    near(made.tall, tall, 1e-6);
});

test('what the server is told of the camera puts points where the camera sees them', () => {
    for (const parallel of [false, true]) {
        const made = viewpoint();
        made.project(parallel);
        made.clip();
        const { eye, target, up, fov, tall } = made.sight();
        const [e, t, u] = [eye, target, up].map((list) => new Vector3(...list));
        const ahead = t.clone().sub(e).normalize();
        const right = new Vector3().crossVectors(ahead, u).normalize();
        const above = new Vector3().crossVectors(right, ahead);
        for (const point of [new Vector3(3, 4, 5), new Vector3(-12, 7, 0)]) {
            const way = point.clone().sub(e);
            const scale = parallel ? 600 / tall : 600 / (2 * Math.tan((fov * Math.PI) / 360)) / way.dot(ahead);
            const [x, y] = [400 + way.dot(right) * scale, 300 - way.dot(above) * scale];
            const seen = point.clone().project(made.camera);
            near(x, (seen.x + 1) * 400, 1e-6);
            near(y, (1 - seen.y) * 300, 1e-6);
        }
    }
});

test('arrow keys orbit at the same distance and never over the pole, and zoom comes nearer', () => {
    const made = viewpoint();
    const far = () => made.camera.position.distanceTo(made.controls.target);
    const distance = far();
    const press = (key, more = {}) => made.key({ key, ...more });
    for (let step = 0; step < 60; step++) {
        assert.ok(press('ArrowUp'));
        near(far(), distance, 1e-6);
        assert.ok(made.camera.position.z > made.controls.target.z);
    }
    press('ArrowLeft');
    near(far(), distance, 1e-6);
    press('+');
    assert.ok(far() < distance);
    const target = made.controls.target.clone();
    made.camera.updateMatrixWorld();
    press('ArrowRight', { shiftKey: true });
    assert.ok(made.controls.target.distanceTo(target) > 0.1);
    assert.equal(press('q'), false);
});

test('viewpoints that were rested at are gone back to, and a held camera stays', () => {
    const made = viewpoint();
    made.rest();
    made.set({ eye: [0, -60, 4], target: [0, 0, 4], fov: 40, tall: 22 }, true);
    made.rest();
    made.rest();
    assert.equal(made.rests.length, 2);
    assert.ok(made.step(-1));
    assert.deepEqual(made.get().eye.map(Math.round), [40, -50, 30]);
    assert.ok(!made.isParallel);
    assert.ok(made.step(1));
    assert.ok(made.isParallel);
    near(made.tall, 22, 1e-9);
    assert.equal(made.step(1), false);
    made.hold(true);
    made.set({ eye: [1, 1, 1], target: [0, 0, 0], fov: 40 }, true);
    made.side('plan', made.all);
    assert.equal(made.step(-1), false);
    assert.equal(made.key({ key: 'ArrowLeft' }), false);
    assert.deepEqual(made.get().eye.map(Math.round), [0, -60, 4]);
    clearTimeout(made.resting);
});

test('going back from a place where nobody has waited leads to the one before it, and on leads there', () => {
    const made = viewpoint();
    made.rest();
    const first = made.get();
    const still = globalThis.matchMedia;
    globalThis.matchMedia = () => ({ matches: false });
    // Frames never come: the flight stays where it began.
    globalThis.requestAnimationFrame = () => 0;
    // A flight that has only begun, and somebody who goes back at once.
    made.set({ eye: [0, -60, 4], target: [0, 0, 4], fov: 40, tall: 22 });
    clearTimeout(made.resting);
    assert.deepEqual(made.goal.eye, [0, -60, 4]);
    assert.ok(made.step(-1));
    assert.deepEqual(made.goal.eye, first.eye);
    assert.equal(made.rests.length, 2);
    made.set(first, true);
    assert.equal(made.goal, null);
    assert.ok(made.step(1));
    assert.deepEqual(made.goal.eye, [0, -60, 4]);
    made.hold(true);
    assert.equal(made.goal, null);
    clearTimeout(made.resting);
    globalThis.matchMedia = still;
});

test('in parallel, how large a thing stands in the picture does not depend on how far it is', () => {
    const camera = new OrthographicCamera(-10, 10, 10, -10, -1000, 1000);
    camera.position.set(0, -5, 0);
    camera.up.set(0, 0, 1);
    camera.lookAt(0, 0, 0);
    camera.updateMatrixWorld();
    camera.updateProjectionMatrix();
    const order = new Order();
    const placements = {
        count: 3,
        capacity: 3,
        sphere: new Float32Array([0, 0, 0, 1, 3, 400, 0, 1, 3, -400, 0, 1]),
        object: new Uint32Array([1, 2, 3]),
    };
    order.sort(/** @type {any} */ (placements), new Uint8Array([5, 5, 5, 5]), camera, 600);
    assert.equal(order.count, 3, 'what is behind the eye is seen as well');
    near(order.size[0], 30, 1e-4);
    near(order.size[1], 30, 1e-4);
    near(order.size[2], 30, 1e-4);
});

test('keys are named the same whatever the keyboard writes for them', () => {
    const key = (name, more = {}) =>
        keyOf(/** @type {any} */ ({ key: name, code: '', ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...more }));
    assert.equal(key('Z', { shiftKey: true, ctrlKey: true }), 'Ctrl+Shift+z');
    assert.equal(key('z', { metaKey: true }), 'Ctrl+z');
    assert.equal(key('?', { shiftKey: true }), '?');
    assert.equal(key('$', { shiftKey: true, altKey: true, code: 'Digit4' }), 'Alt+Shift+4');
    assert.equal(key('4', { altKey: true, code: 'Digit4' }), 'Alt+4');
    assert.equal(key('Escape'), 'Escape');
    assert.deepEqual(['Ctrl+Shift+z', 'Shift+n', 'Escape', 'a'].map(shownKey), ['Ctrl + ⇧ Z', '⇧ N', 'Esc', 'A']);
});

test('what is framed fills the free part of the canvas and stands in its middle', () => {
    for (const parallel of [false, true]) {
        for (let round = 0; round < 60; round++) {
            const made = viewpoint();
            made.project(parallel);
            made.free = { left: 0.01, top: 0.1 * random(), right: 0.25 * random(), bottom: 0.2 * random() };
            const from = new Vector3(random() - 0.5, random() - 0.5, random() * 0.5).normalize();
            const low = new Vector3(random() * 50, random() * 50, random() * 50);
            const box = new Box3(low, low.clone().add(new Vector3(1 + 40 * random(), 1 + 40 * random(), 1 + 9 * random())));
            made.fit(box, true, from.toArray());
            made.camera.updateMatrixWorld();
            const seen = [0, 1, 2, 3, 4, 5, 6, 7].map((corner) =>
                new Vector3(
                    corner & 1 ? box.min.x : box.max.x,
                    corner & 2 ? box.min.y : box.max.y,
                    corner & 4 ? box.min.z : box.max.z,
                ).project(made.camera),
            );
            const sides = ['x', 'y'].map((axis) => [
                Math.min(...seen.map((point) => point[axis])),
                Math.max(...seen.map((point) => point[axis])),
            ]);
            const free = [
                [2 * made.free.left - 1, 1 - 2 * made.free.right],
                [2 * made.free.bottom - 1, 1 - 2 * made.free.top],
            ];
            const fills = [0, 1].map((axis) => {
                near((sides[axis][0] + sides[axis][1]) / 2, (free[axis][0] + free[axis][1]) / 2, 1e-3);
                return (sides[axis][1] - sides[axis][0]) / (free[axis][1] - free[axis][0]);
            });
            assert.ok(Math.max(...fills) <= 1.001 && Math.max(...fills) > 0.8, `${fills}`);
        }
    }
});
