// What a page says of its canvas, and where it was left for pictures.
import assert from 'node:assert/strict';
import test from 'node:test';
import { settingsOf } from '../../resources/js/canvas/settings.js';
import { leaveFrom, leftFrom } from '../../resources/js/pictures/from.js';

const SIGHT = { eye: [1, 2, 3], target: [0, 0, 0], fov: 40 };

/** A page as far as it is read. */
function page(materials) {
    globalThis.document = {
        getElementById: () => (materials === null ? null : { textContent: materials }),
        querySelector: () => ({ content: 'token' }),
    };
    return { dataset: { budget: '{"triangles":5}', smoothing: '3' } };
}

test('addresses stand under the base, and what is otherwise on a page goes before', () => {
    const settings = settingsOf(page('{"1":[255]}'), '/projects/a');
    assert.equal(settings.records, '/projects/a/records');
    assert.equal(settings.meshes, '/projects/a/meshes');
    assert.deepEqual([settings.budget, settings.smoothing, settings.materials], [{ triangles: 5 }, 3, { 1: [255] }]);
    assert.deepEqual([settings.isWhole, settings.resolution], [undefined, 1]);
    const own = settingsOf(page(null), '/shown/t', { records: '/shown/t/views/records', isWhole: true });
    assert.deepEqual([own.records, own.packs, own.isWhole, own.materials], ['/shown/t/views/records', '/shown/t/packs', true, {}]);
});

test('pictures are taken from where the workbench of the same project was left, and of no other', () => {
    const kept = new Map();
    globalThis.sessionStorage = { getItem: (name) => kept.get(name) ?? null, setItem: (name, value) => kept.set(name, value) };
    leaveFrom('/projects/a', SIGHT);
    assert.deepEqual(leftFrom('/projects/a'), SIGHT);
    assert.equal(leftFrom('/projects/b'), null);
    leaveFrom('/projects/b', { ...SIGHT, tall: 4 });
    assert.deepEqual([leftFrom('/projects/a'), leftFrom('/projects/b').tall], [SIGHT, 4]);
});
