import assert from 'node:assert/strict';
import { test } from 'node:test';
import { sentenceOf } from '../../resources/js/bench/failures.js';

test('every failed answer has a sentence that says what to do', () => {
    const sentences = [0, 401, 403, 404, 413, 419, 429, 500, 503].map(sentenceOf);
    assert.equal(new Set(sentences).size, sentences.length);
    for (const sentence of sentences) assert.match(sentence, /^[A-Z].*\.$/);
    assert.equal(sentenceOf(502), sentenceOf(500));
    assert.notEqual(sentenceOf(400), sentenceOf(500));
});
