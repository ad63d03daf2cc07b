import assert from 'node:assert/strict';
import test from 'node:test';
import { Vector3 } from 'three';
import { cutsOf } from '../../resources/js/bench/cuts.js';
import { whole } from '../../resources/js/bench/frame.js';
import { coloursOf } from '../../resources/js/bench/tint.js';
import { cameraAt } from '../../resources/js/canvas/foresight.js';

const SIGHT = { eye: [10, 0, 2], target: [0, 0, 2], fov: 40, aspect: 2 };

test('a page that is narrower than the picture of a view sees all of it', () => {
    const seen = whole(SIGHT, 0.5);
    // Half the width at the target is 2 times the height's, whatever the page.
    const half = Math.tan((SIGHT.fov * Math.PI) / 360) * 2;
    assert.ok(Math.abs(Math.tan((seen.fov * Math.PI) / 360) * 0.5 - half) < 1e-9);
    assert.equal(whole(SIGHT, 2.5), SIGHT);
    assert.equal(whole({ ...SIGHT, tall: 3 }, 1).tall, 6);
    assert.deepEqual(whole({ ...SIGHT, aspect: undefined }, 1).fov, 40);
});

test('a camera stands where a sight says, in perspective and in parallel', () => {
    const at = (sight) => new Vector3(0, 0, 2).project(cameraAt(sight, 2, 500));
    for (const sight of [SIGHT, { ...SIGHT, tall: 4 }]) {
        const { x, y } = at(sight);
        assert.ok(Math.abs(x) < 1e-9 && Math.abs(y) < 1e-9, 'the target is in the middle');
    }
    const top = new Vector3(0, 0, 4).project(cameraAt({ ...SIGHT, tall: 4 }, 2, 500));
    assert.ok(Math.abs(top.y - 1) < 1e-9, 'half of what it is tall reaches to the rim');
});

test('a section is planes from where the canvas counts, none where it is off', () => {
    const section = { on: true, box: [100, 0, 0, 110, 5, 3], planes: [[[0, 0, 1], 2]] };
    assert.deepEqual(cutsOf({ ...section, on: false }, [0, 0, 0]), []);
    const cuts = cutsOf(section, [100, 0, 1]);
    assert.equal(cuts.length, 7);
    assert.deepEqual(cuts[0].map(Math.abs), [1, 0, 0, 0]);
    assert.deepEqual(cuts[1], [1, 0, 0, 10]);
    assert.deepEqual(cuts[6], [0, 0, 1, 1]);
});

test('colours by number are those of the entries, none where there is no entry', () => {
    assert.deepEqual([...coloursOf(Uint8Array.from([0, 0, 2, 0]), ['#000000', '#ff8001'])], [0, 0, 0, 0, 255, 128, 1, 255]);
});
