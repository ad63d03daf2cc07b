import assert from 'node:assert/strict';
import test from 'node:test';
import { answersTo } from '../../resources/js/bench/viewfinder.js';

test('a view is found by parts of its name and note, whatever their case and order', () => {
    assert.equal(answersTo('', 'Hall at noon'), true);
    assert.equal(answersTo('NOON  hall', 'Hall at noon '), true);
    assert.equal(answersTo('noon attic', 'Hall at noon'), false);
    assert.equal(answersTo('ÉTAGE', 'étage 2 with a note'), true);
});
