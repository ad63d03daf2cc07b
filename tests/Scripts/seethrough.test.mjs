// Glass and ghosts in slices, checked without a browser: node --test tests/Scripts
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { SeeThrough } from '../../resources/js/canvas/seethrough.js';

const GLASS = 4;
const OPAQUE = 5;

/**
 * A painter that keeps what it is told to render. Placement n uses mesh n, which has a pane of glass, an opaque piece of 70 triangles, a
 * wire and an edge of ten lines; it stands n metres from the eye.
 */
function painting(count) {
    const drawn = [];
    let put = [];
    const page = (kind) => ({ kind, clear: () => (put = []), draw: (index, piece) => put.push(`${piece.name}${index}`) });
    const faces = page('triangles');
    const lines = page('lines');
    const pieces = [
        { name: 'pane', page: faces, material: GLASS, triangles: 100 },
        { name: 'solid', page: faces, material: OPAQUE, triangles: 70 },
        { name: 'wire', page: lines, material: OPAQUE, triangles: 0 },
    ];
    const sphere = Array.from({ length: count }, (_, n) => [n, 0, 0, 1]).flat();
    const painter = {
        packs: { pages: [faces, lines], edges: () => [{ name: 'edge', page: lines, count: 20 }] },
        look: {
            materials: { seeThrough: 'glass', ghost: 'ghost', line: 'line' },
            surfaces: new Map([
                [GLASS, [0, 0, 1]],
                [OPAQUE, [0, 0, 0]],
            ]),
        },
        placements: { sphere, mesh: [...Array(count).keys()], facts: Array.from({ length: count }, () => ({ levels: [{ pieces }] })) },
        detail: { level: new Uint8Array(count) },
        order: { eye: { x: 0, y: 0, z: 0 } },
        render: (materialOf, withBoxes) => {
            assert.equal(withBoxes, false);
            drawn.push([materialOf(), ...put]);
        },
    };
    return { seeThrough: new SeeThrough(/** @type {any} */ (painter)), drawn, painter };
}

test('glass comes first, the far before the near, then ghosts, then their edges and wires', () => {
    const { seeThrough, drawn } = painting(4);
    seeThrough.glass.push(1, 3);
    seeThrough.ghosts.push(0, 2);
    assert.deepEqual(seeThrough.draw(Infinity, false), { done: true, spent: 2 * 130 + 2 * 200 + 2 * 40 });
    assert.deepEqual(drawn, [
        ['glass', 'pane3', 'pane1'],
        ['ghost', 'pane0', 'solid0', 'pane2', 'solid2'],
        ['line', 'edge0', 'wire0', 'edge2', 'wire2'],
    ]);
});

test('edges that layers and tags ask for come last, without the wires that were drawn already', () => {
    const { seeThrough, drawn } = painting(4);
    seeThrough.ghosts.push(0);
    seeThrough.edged.push(1, 3);
    assert.deepEqual(seeThrough.draw(Infinity, false), { done: true, spent: 200 + 40 + 2 * 40 });
    assert.deepEqual(drawn, [
        ['ghost', 'pane0', 'solid0'],
        ['line', 'edge0', 'wire0'],
        ['line', 'edge1', 'edge3'],
    ]);
});

test('with nothing to be seen through nothing is rendered', () => {
    const { seeThrough, drawn } = painting(1);
    assert.deepEqual(seeThrough.draw(50, false), { done: true, spent: 0 });
    assert.deepEqual(seeThrough.draw(50, true), { done: true, spent: 0 });
    assert.deepEqual(drawn, []);
});

for (const allowance of [1, 150, 333, 5000])
    test(`in slices of ${allowance} triangles everything is drawn once, in the same order`, () => {
        const all = painting(40);
        const sliced = painting(40);
        for (const { seeThrough } of [all, sliced]) {
            for (let n = 0; n < 40; n += 3) seeThrough.glass.push(n);
            for (let n = 0; n < 40; n++) seeThrough.ghosts.push(n);
        }
        all.seeThrough.draw(Infinity, false);
        let [slices, spent] = [0, 0];
        for (let done = false; !done; slices++) {
            const slice = sliced.seeThrough.draw(allowance, false);
            // The one that goes over is the last of its slice.
            assert.ok(slice.spent < allowance + 200, `${slice.spent} in a slice of ${allowance}`);
            spent += slice.spent;
            done = slice.done;
        }
        const joined = new Map();
        for (const [material, ...put] of sliced.drawn) joined.set(material, [...(joined.get(material) ?? []), ...put]);
        assert.deepEqual(
            [...joined].map(([material, put]) => [material, ...put]),
            all.drawn,
        );
        assert.ok(slices >= spent / (allowance + 200), `${slices} slices`);
    });

test('while the camera moves some of each is drawn, and what was begun is begun anew with the next picture', () => {
    const { seeThrough, drawn } = painting(20);
    for (let n = 0; n < 20; n++) {
        seeThrough.glass.push(n);
        seeThrough.ghosts.push(n);
    }
    const { done } = seeThrough.draw(300, true);
    assert.ok(done);
    assert.deepEqual(
        drawn.map(([material, ...put]) => [material, put.length]),
        [
            ['glass', 3],
            ['ghost', 4],
            ['line', 16],
        ],
    );
    seeThrough.begin();
    assert.deepEqual([seeThrough.glass, seeThrough.ghosts], [[], []]);
    seeThrough.ghosts.push(7);
    drawn.length = 0;
    seeThrough.draw(Infinity, false);
    assert.deepEqual(drawn, [
        ['ghost', 'pane7', 'solid7'],
        ['line', 'edge7', 'wire7'],
    ]);
});

test('a mesh that has not come is passed over', () => {
    const { seeThrough, drawn, painter } = painting(2);
    painter.placements.facts[1] = /** @type {any} */ ({ levels: [{ pieces: null }] });
    painter.packs.edges = () => [];
    seeThrough.ghosts.push(1);
    assert.deepEqual(seeThrough.draw(Infinity, false), { done: true, spent: 60 });
    assert.deepEqual(drawn, [['ghost'], ['line']]);
});
