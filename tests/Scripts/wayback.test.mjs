import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';

/** @type {Map<string, string>} */
const kept = new Map();
Object.assign(globalThis, {
    location: { href: 'http://shelf.test/projects/abc/summary', origin: 'http://shelf.test' },
    sessionStorage: {
        getItem: (/** @type {string} */ entry) => kept.get(entry) ?? null,
        setItem: (/** @type {string} */ entry, /** @type {string} */ value) => kept.set(entry, value),
    },
});
const { noteWindow, wayBack } = await import('../../resources/js/wayback.js');

beforeEach(() => kept.clear());

test('a page leads back to the ledger of the window that it was opened from', () => {
    noteWindow('/projects/abc', 'first1');
    assert.equal(wayBack('/projects/abc'), 'http://shelf.test/projects/abc?w=first1');
    assert.equal(wayBack('http://shelf.test/projects/abc?review=1'), 'http://shelf.test/projects/abc?review=1&w=first1');
});

test('what names its window, is another project, or is no workbench is left as it is', () => {
    noteWindow('/projects/abc', 'first1');
    assert.equal(wayBack('/projects/abc?w=other'), 'http://shelf.test/projects/abc?w=other');
    assert.equal(wayBack('/projects/xyz'), 'http://shelf.test/projects/xyz');
    assert.equal(wayBack('/projects/abc/report/1'), 'http://shelf.test/projects/abc/report/1');
    assert.equal(wayBack('/projects'), 'http://shelf.test/projects');
});

test('a window that was never in the workbench has no name', () => {
    assert.equal(wayBack('/projects/abc'), 'http://shelf.test/projects/abc');
});
