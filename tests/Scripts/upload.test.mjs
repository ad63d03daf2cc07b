// Which of the files that were given together is the model: node --test tests/Scripts
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { modelOf } from '../../resources/js/upload.js';

const given = (...paths) => paths.map((path) => ({ file: { name: path.split('/').pop(), size: 1 }, path }));

test('one model among the files is taken, and what is wrong is said', () => {
    assert.equal(modelOf(given('a/Hall.GLTF', 'a/hall.bin', 'a/t/tiles.png')).model.path, 'a/Hall.GLTF');
    assert.equal(modelOf(given('Hall.glb')).model.path, 'Hall.glb');
    assert.equal(modelOf(given('plan.dwg')).complaint, '“plan.dwg” is not a .glb, .gltf or .zip file.');
    assert.equal(modelOf(given('a.bin', 'b.png')).complaint, 'There is no .glb, .gltf or .zip file among these.');
    assert.equal(modelOf(given('a.glb', 'b.zip', 'c.gltf')).complaint, 'These are 3 models; take them in one after the other.');
    assert.equal(modelOf([]).model, undefined);
});
