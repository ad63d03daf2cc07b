// How much time drawing has while the camera moves, without a browser: node --test tests/Scripts
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { Pace } from '../../resources/js/canvas/pace.js';

/** Milliseconds from picture to picture once it has run for a while, on a machine that needs so many between two. */
function settled(between, others, frame = 1) {
    const pace = new Pace();
    let now = 1000;
    let interval = 0;
    for (let picture = 0; picture < 60; picture++) {
        pace.begin(now, true);
        const spent = others + pace.left(others);
        pace.took(spent);
        interval = Math.ceil((spent + between) / frame) * frame;
        now += interval;
    }
    return interval;
}

test('twelve pictures a second, whatever the page and the browser need between them', () => {
    for (const between of [0, 5, 20, 30]) assert.ok(Math.abs(settled(between, 8) - 70) < 1.5, `${between} ms between`);
    assert.ok(settled(20, 8, 1000 / 60) < 1000 / 12 + 1, 'on a screen that shows sixty a second');
});

test('drawing keeps some time of its own where there is none to give, and a pause teaches nothing', () => {
    assert.equal(settled(150, 8), 188);
    const pace = new Pace();
    pace.begin(0, true);
    pace.took(60);
    const before = pace.left(10);
    pace.begin(5000, true);
    assert.equal(pace.left(10), before, 'the camera stood still for a while');
    pace.took(60);
    pace.begin(5080, false);
    pace.begin(5100, true);
    assert.equal(pace.left(10), before, 'a picture at rest came between');
});
