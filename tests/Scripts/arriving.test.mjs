// How objects come to the canvas, checked without a browser: node --test tests/Scripts
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { Box3 } from 'three';

globalThis.Worker = /** @type {any} */ (
    class {
        addEventListener() {}
    }
);
const { Arriving } = await import('../../resources/js/canvas/arriving.js');
const { Framing } = await import('../../resources/js/canvas/framing.js');

const settings = { records: '/records', textures: '/textures', csrf: 'token', materials: {} };

/** One that takes answers as they are, and all that it asked for and said. */
function arriving(answers) {
    const asked = [];
    globalThis.fetch = /** @type {any} */ (
        (address, how) => {
            asked.push(how?.method === 'POST' ? `POST ${address} ${how.body}` : address);
            const answer = answers[address];
            return answer === undefined ? Promise.reject(new Error('no connection')) : Promise.resolve(answer);
        }
    );
    const element = new EventTarget();
    const failed = [];
    element.addEventListener('shelf:failed', (event) => failed.push(/** @type {CustomEvent} */ (event).detail.response?.status ?? 0));
    const came = [];
    const made = new Arriving(/** @type {any} */ (element), /** @type {any} */ (settings), (read) => came.push(read));
    made.reading = /** @type {any} */ ({ of: (buffer) => Promise.resolve(buffer) });
    return { made, element, asked, came, failed };
}
const sent = (read) => ({ ok: true, status: 200, arrayBuffer: () => Promise.resolve(read) });
const turn = () => new Promise((resolve) => setTimeout(resolve, 5));

test('the biggest objects come first, and the others are asked for once those were seen', async () => {
    const parts = { '/records?part=0': sent({ parts: 2, part: 0 }) };
    for (const part of [1, 2]) parts[`/records?part=${part}`] = sent({ parts: 2, part });
    const { made, element, asked, came } = arriving(parts);
    const done = [];
    const all = made.all(() => done.push('first')).then(() => done.push('all'));
    await turn();
    assert.deepEqual([asked, done], [['/records?part=0'], ['first']]);
    element.dispatchEvent(new Event('shelf:drawn'));
    await all;
    assert.deepEqual(asked, ['/records?part=0', '/records?part=1', '/records?part=2']);
    assert.deepEqual(
        came.map(({ part }) => part),
        [0, 1, 2],
    );
    assert.deepEqual(done, ['first', 'all']);
});

test('a part that does not come is said, and the others come all the same', async () => {
    const { made, element, came, failed } = arriving({
        '/records?part=0': sent({ parts: 3, part: 0 }),
        '/records?part=1': { ok: false, status: 503 },
        '/records?part=3': sent({ parts: 3, part: 3 }),
    });
    const all = made.all(() => queueMicrotask(() => setTimeout(() => element.dispatchEvent(new Event('shelf:drawn')))));
    await all;
    assert.deepEqual(failed, [503, 0]);
    assert.deepEqual(
        came.map(({ part }) => part),
        [0, 3],
    );
});

test('without the first part nothing else is asked for, but whoever waits goes on', async () => {
    const { made, element, asked, came, failed } = arriving({ '/records?part=0': { ok: false, status: 500 } });
    let went = false;
    const all = made.all(() => (went = true));
    await turn();
    element.dispatchEvent(new Event('shelf:drawn'));
    await all;
    assert.deepEqual([asked, came, failed, went], [['/records?part=0'], [], [500], true]);
});

test('objects that come on show are asked for by number', async () => {
    const { made, asked, came } = arriving({ '/records?part=0': sent({ parts: 0 }), '/records': sent({ parts: 0, some: true }) });
    await made.some(Uint32Array.of(7, 9));
    assert.deepEqual(asked, ['/records?part=0', 'POST /records 7,9']);
    assert.deepEqual(came, [{ parts: 0, some: true }]);
});

test('a picture that cannot be shown is missing, the others are there', async () => {
    globalThis.createImageBitmap = /** @type {any} */ (
        (blob) => (blob === 'broken' ? Promise.reject(new Error('no picture')) : Promise.resolve(blob))
    );
    const { made, asked } = arriving({
        '/records?part=0': sent({ parts: 0 }),
        '/textures/4': { ok: true, blob: () => Promise.resolve('wood') },
        '/textures/5': { ok: true, blob: () => Promise.resolve('broken') },
        '/textures/6': { ok: false },
    });
    made.settings = /** @type {any} */ ({
        ...settings,
        materials: { 1: [0, 4, 0, 0, 0, 0, null], 2: [0, 4, 0, 0, 0, 0, 5], 3: [0, 6, 0, 0, 0, 0, 8], 4: [0, null, 0, 0, 0, 0, null] },
    });
    assert.deepEqual(await made.pictures(), new Map([[4, 'wood']]));
    assert.deepEqual(asked.slice(1).sort(), ['/textures/4', '/textures/5', '/textures/6', '/textures/8']);
});

test('a framed box has some of its surroundings: little things more of them, a point some room', () => {
    const framing = new Framing(
        /** @type {any} */ ({}),
        /** @type {any} */ ({}),
        /** @type {any} */ ({ all: new Box3().setFromArray([0, 0, 0, 100, 0, 0]) }),
        /** @type {any} */ ({}),
    );
    const sides = (box, around) => framing.roomy(box, around).min.toArray();
    assert.deepEqual(sides([10, 10, 10, 12, 11, 11], 0), [10, 10, 10]);
    // A quarter of what is large, up to six hundredths of the whole around what is small, but never more than was asked for.
    assert.deepEqual(sides([40, 0, 0, 80, 5, 5], 1.8), [30, -10, -10]);
    assert.deepEqual(sides([10, 10, 10, 12, 11, 11], 1.8), [6.4, 6.4, 6.4]);
    assert.deepEqual(sides([50, 50, 50, 60, 55, 55], 1.8), [44, 44, 44]);
    assert.deepEqual(sides([3, 3, 3, 3, 3, 3], 0), [2.25, 2.25, 2.25]);
});
