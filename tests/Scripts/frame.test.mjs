import assert from 'node:assert/strict';
import { test } from 'node:test';
import { inside } from '../../resources/js/bench/frame.js';

test('the frame of a view is the largest of its shape in the canvas', () => {
    assert.deepEqual(inside(2, 800, 600), [800, 400]);
    assert.deepEqual(inside(1, 800, 600), [600, 600]);
    assert.deepEqual(inside(0, 800, 600), [0, 0]);
    assert.deepEqual(inside(Number.NaN, 800, 600), [0, 0]);
    assert.deepEqual(inside(1.5, 0, 600), [0, 0]);
});
