// Marks on what is picked and hardly seen, without a browser: node --test tests/Scripts
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { OrthographicCamera, PerspectiveCamera } from 'three';
import { PickMarks, apart, placeOf, seenOf } from '../../resources/js/canvas/pickmarks.js';

const looking = (camera, eye) => {
    camera.position.set(...eye);
    camera.lookAt(0, 0, 0);
    camera.updateMatrixWorld();
    return camera;
};

const rounded = (place) => Object.fromEntries(Object.entries(place).map(([name, value]) => [name, Math.round(value * 1e6) / 1e6]));

test('something is placed where the camera shows it, and nowhere behind it or beside the picture', () => {
    const camera = looking(new PerspectiveCamera(90, 2, 0.1, 100), [0, 0, 10]);
    const spheres = [0, 0, 0, 1, 5, 0, 0, 1, 0, 0, 20, 1, 40, 0, 0, 1];
    assert.deepEqual(rounded(placeOf(spheres, 0, camera, 400, 200)), { x: 200, y: 100, across: 20 });
    // Half of the picture's height at ten metres is ten metres: five are fifty pixels.
    assert.deepEqual(rounded(placeOf(spheres, 1, camera, 400, 200)), { x: 250, y: 100, across: 20 });
    assert.equal(placeOf(spheres, 2, camera, 400, 200), null);
    assert.equal(placeOf(spheres, 3, camera, 400, 200), null);
    const flat = looking(new OrthographicCamera(-20, 20, 10, -10, 0.1, 100), [0, 0, 10]);
    assert.deepEqual(rounded(placeOf(spheres, 1, flat, 400, 200)), { x: 250, y: 100, across: 20 });
});

test('pixels are counted for picked objects only, in what is solid, in ghosts and in glass', () => {
    const pixel = (number, glass = false) => [number & 255, (number >> 8) & 255, (number >> 16) | (glass ? 128 : 0), 255];
    const solid = Uint8Array.from([...pixel(7), ...pixel(7), ...pixel(70000), ...pixel(0)]);
    const over = Uint8Array.from([...pixel(7, true), ...pixel(8), ...pixel(0), ...pixel(70000, true)]);
    const pick = new Uint8Array(70001);
    pick[7] = pick[70000] = 1;
    assert.deepEqual(
        [...seenOf([solid, over], pick)],
        [
            [7, 3],
            [70000, 2],
        ],
    );
    // Where a picture has half as many pixels in each direction, each stands for four of the page.
    assert.equal(seenOf([solid, over], pick, 4).get(7), 12);
});

test('what is behind something or tiny is marked, what is plain to see is not', () => {
    const camera = looking(new PerspectiveCamera(90, 2, 0.1, 1000), [0, 0, 10]);
    const canvas = {
        element: { addEventListener: () => undefined, clientWidth: 400, clientHeight: 200 },
        placements: { sphere: [0, 0, 0, 2, 3, 0, 0, 2, -3, 0, 0, 0.05], object: [11, 12, 13] },
        viewpoint: { camera },
        pickedPlacements: () => [0, 1, 2],
        seen: () =>
            new Map([
                [11, 400],
                [13, 9],
            ]),
    };
    const marks = new PickMarks(canvas, {});
    marks.draw = () => undefined;
    return new Promise((resolve) => {
        marks.look();
        setTimeout(() => {
            // 12 shows in no pixel; 13 shows, but is one pixel across.
            assert.deepEqual(marks.hardly, [1, 2]);
            resolve(undefined);
        }, 300);
    });
});

test('marks beside each other are one', () => {
    const places = [0, 4, 8, 12, 30].map((x) => ({ x, y: 0 }));
    assert.deepEqual(
        apart(places).map(({ x }) => x),
        [0, 12, 30],
    );
});
