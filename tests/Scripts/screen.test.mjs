// The step to the screen does what is needed and nothing else: node --test tests/Scripts
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { makeScreen } from '../../resources/js/canvas/screen.js';

/** Every state that asks for something else, and what is asked for. */
function states() {
    const all = [];
    for (const inked of [0, 0.3, 0.75])
        for (const anyPick of [0, 1])
            for (const hovered of [0, 1, 200_000])
                for (const anyTake of [0, 1])
                    for (const moving of [false, true]) {
                        const does = [];
                        if (inked) does.push('INKED');
                        if (anyPick) does.push('PICKED');
                        if (anyPick && moving && !hovered) does.push('MOVING');
                        if (hovered) does.push('HOVERED');
                        if (hovered && anyTake) does.push('TAKEN');
                        all.push([{ inked, anyPick, hovered, anyTake }, does, moving]);
                    }
    return all;
}

test('what is not needed is not compiled', () => {
    const { screen, dress } = makeScreen();
    for (const [state, does, moving] of states()) {
        for (const [name, value] of Object.entries(state)) screen.material.uniforms[name].value = value;
        dress(moving);
        assert.deepEqual(Object.keys(screen.material.defines).sort(), does.sort(), JSON.stringify(state));
    }
});

test('what was compiled is kept, and all of it reads the same values', () => {
    const { screen, dress } = makeScreen();
    const { uniforms } = screen.material;
    const made = new Map();
    for (let round = 0; round < 2; round++)
        for (const [state, does, moving] of states()) {
            for (const [name, value] of Object.entries(state)) uniforms[name].value = value;
            dress(moving);
            const before = made.get(does.join());
            assert.ok(before === undefined ? round === 0 : before === screen.material, does.join());
            assert.equal(screen.material.uniforms, uniforms);
            made.set(does.join(), screen.material);
        }
    assert.equal(made.size, 2 * (2 * 3 + 1));
    assert.equal(new Set(made.values()).size, made.size);
});

test('two screens do not dress each other', () => {
    const [one, other] = [makeScreen(), makeScreen()];
    one.screen.material.uniforms.hovered.value = 7;
    one.dress();
    other.dress();
    assert.deepEqual(Object.keys(one.screen.material.defines), ['HOVERED']);
    assert.deepEqual(Object.keys(other.screen.material.defines), []);
});
