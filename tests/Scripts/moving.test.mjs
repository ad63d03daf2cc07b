// Where rows and views go that are dragged or moved by key, without a browser: node --test tests/Scripts
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { dropOn } from '../../resources/js/bench/dragging.js';
import { linesOf } from '../../resources/js/bench/edges.js';
import { dropOnShelf, oneFurther } from '../../resources/js/bench/shelf.js';
import { rectangle } from '../../resources/js/bench/wide.js';

const row = (key, name, more = {}) => ({ dataset: { key, name, ...more } });
const where = (dragged, on, share) => dropOn(dragged, on, share)?.where ?? null;

test('objects are dropped on what can hold them, and the mark says what will happen', () => {
    const objects = { keys: ['O4'], count: 1, family: '' };
    assert.deepEqual(dropOn(objects, row('L3', 'Glazing'), 0.5), { where: 'file', says: 'File 1 object under Glazing' });
    assert.deepEqual(dropOn({ ...objects, count: 2014 }, row('T3', 'Wet'), 0.1), { where: 'tag', says: 'Tag 2,014 objects Wet' });
    assert.equal(where(objects, row('E2', 'Fixed'), 0.5), 'add');
    assert.equal(where(objects, row('E3', 'Live', { rule: 'kind:part' }), 0.5), null);
    assert.equal(where(objects, row('F3', 'Folder', { holds: 'tags' }), 0.5), null);
    assert.equal(where(objects, row('O9', 'Bolt'), 0.5), null);
});

test('layers go before, into and after layers, but not before Unsorted, and tags only among tags and their folders', () => {
    const layers = { keys: ['L5', 'L6'], count: 2, family: 'layers' };
    assert.deepEqual(
        [0.1, 0.5, 0.9].map((share) => where(layers, row('L3', 'Glazing'), share)),
        ['before', 'into', 'after'],
    );
    assert.deepEqual(
        [0.1, 0.5, 0.9].map((share) => where(layers, row('L1', 'Unsorted'), share)),
        ['after', 'after', 'after'],
    );
    assert.equal(where(layers, row('L6', 'Itself'), 0.5), null);
    assert.equal(where(layers, row('T3', 'Wet'), 0.5), null);
    const tags = { keys: ['T1'], count: 1, family: 'tags' };
    assert.equal(where(tags, row('F2', 'Phases', { holds: 'tags' }), 0.5), 'into');
    assert.equal(where(tags, row('F2', 'Checks', { holds: 'sets' }), 0.5), null);
    assert.equal(where(tags, row('T2', 'Dry'), 0.5), 'after');
    const set = { keys: ['E1'], count: 1, family: 'sets' };
    assert.deepEqual(
        [0.1, 0.5, 0.9].map((share) => where(set, row('E2', 'Wet'), share)),
        ['before', 'join', 'after'],
    );
    assert.equal(dropOn(set, row('E2', 'Wet'), 0.5)?.says, 'Join it and Wet…');
    assert.equal(where(set, row('F2', 'Checks', { holds: 'sets' }), 0.5), 'into');
    assert.equal(dropOn(layers, row('L3', 'Glazing'), 0.5)?.says, 'Move 2 rows into Glazing');
});

test('views go before and after views, and into folders', () => {
    const one = { keys: ['V1'] };
    assert.deepEqual(
        [0.1, 0.9].map((share) => dropOnShelf(one, { key: 'V2', name: 'Plan' }, share)?.says),
        ['Move it before Plan', 'Move it after Plan'],
    );
    assert.deepEqual(
        [0.1, 0.6].map((share) => dropOnShelf({ keys: ['V1', 'V3'] }, { key: 'F2', name: 'Client' }, share)?.says),
        ['Move 2 before Client', 'Move 2 into Client'],
    );
    assert.equal(dropOnShelf(one, { key: 'V1', name: 'Itself' }, 0.5), null);
});

/** A shelf as nested lists: a folder is its key and what lies in it. */
function moved(shelf, key, { where: to, mark }) {
    const copy = structuredClone(shelf);
    const take = (list) => {
        for (const [at, each] of list.entries()) {
            if (each[0] === key) return list.splice(at, 1)[0];
            const inner = each[1] && take(each[1]);
            if (inner) return inner;
        }
        return null;
    };
    const item = take(copy);
    const put = (list) => {
        for (const [at, each] of list.entries()) {
            if (each[0] === mark) return to === 'into' ? each[1].push(item) : list.splice(to === 'before' ? at : at + 1, 0, item);
            if (each[1] && put(each[1])) return true;
        }
        return false;
    };
    assert.ok(put(copy), `${mark} is there`);
    return copy;
}

const lineOf = (shelf, within = '') => shelf.flatMap(([key, inner]) => [{ key, within }, ...(inner ? lineOf(inner, key) : [])]);

test('moved by key, a view visits every place on the shelf, folders and what lies in them too, and comes back the same way', () => {
    let shelf = [['V1'], ['V2'], ['F1', [['V3'], ['F2', []], ['V4']]], ['V5'], ['F3', [['V6']]]];
    const seen = [JSON.stringify(shelf)];
    for (let step = 0; step < 30; step++) {
        const to = oneFurther(lineOf(shelf), 'V1', true);
        if (!to) break;
        shelf = moved(shelf, 'V1', to);
        seen.push(JSON.stringify(shelf));
    }
    assert.equal(new Set(seen).size, seen.length, 'no place twice');
    // Between eight others: ten gaps between neighbours, in and out of three folders.
    assert.equal(seen.length, 12);
    assert.deepEqual(shelf.at(-1), ['V1']);
    for (let step = seen.length - 2; step >= 0; step--) {
        const to = oneFurther(lineOf(shelf), 'V1', false);
        assert.ok(to);
        shelf = moved(shelf, 'V1', to);
        assert.equal(JSON.stringify(shelf), seen[step]);
    }
    assert.equal(oneFurther(lineOf(shelf), 'V1', false), null);
});

test('a folder moved by key never goes into itself', () => {
    let shelf = [['F1', [['V1'], ['F2', [['V2']]]]], ['V3'], ['F4', []]];
    for (let step = 0; step < 10; step++) {
        const to = oneFurther(lineOf(shelf), 'F1', true);
        if (!to) break;
        assert.ok(!['F1', 'V1', 'F2', 'V2'].includes(to.mark));
        shelf = moved(shelf, 'F1', to);
    }
    assert.deepEqual(
        shelf.map(([key]) => key),
        ['V3', 'F4', 'F1'],
    );
});

test('a range of cells is the same from whichever corner it is drawn', () => {
    const corners = [
        { place: 3, column: 5 },
        { place: 9, column: 1 },
    ];
    const expected = { first: 3, last: 9, left: 1, right: 5 };
    assert.deepEqual(rectangle(corners[0], corners[1]), expected);
    assert.deepEqual(rectangle(corners[1], corners[0]), expected);
});

test('edges get the colour and the style of their entry, and none where there is none', () => {
    const lines = linesOf(Uint16Array.of(0, 2, 0, 1), [
        { colour: '#102030', line: 1 },
        { colour: '#ff00a0', line: 4 },
    ]);
    assert.deepEqual([...lines], [0, 0, 0, 0, 255, 0, 160, 4, 0, 0, 0, 0, 16, 32, 48, 1]);
});
