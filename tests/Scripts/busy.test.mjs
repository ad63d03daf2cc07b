// What takes long says so, and what is quick does not: node --test tests/Scripts
import assert from 'node:assert/strict';
import { test } from 'node:test';

const place = { hidden: true, textContent: '' };
globalThis.document = { getElementById: (id) => (id === 'busy' ? place : null) };
const { whileBusy } = await import('../../resources/js/bench/busy.js');
const after = (milliseconds, value) => new Promise((done) => setTimeout(() => done(value), milliseconds));

test('quick work says nothing, long work says what it is until it ends', async () => {
    assert.equal(await whileBusy('Looking for seat', after(20, 7)), 7);
    assert.equal(place.hidden, true);
    const long = whileBusy('Looking for seat', after(700, 8));
    await after(550);
    assert.deepEqual([place.hidden, place.textContent], [false, 'Looking for seat…']);
    assert.equal(await long, 8);
    assert.deepEqual([place.hidden, place.textContent], [true, '']);
});

test('of several the latest is said, and one that fails is over as well', async () => {
    const first = whileBusy('Working', after(1100));
    const second = whileBusy(
        'Fetching rows',
        after(700).then(() => {
            throw new Error('gone');
        }),
    );
    await after(550);
    assert.equal(place.textContent, 'Fetching rows…');
    await assert.rejects(second, /gone/);
    assert.deepEqual([place.hidden, place.textContent], [false, 'Working…']);
    await first;
    assert.equal(place.hidden, true);
});
