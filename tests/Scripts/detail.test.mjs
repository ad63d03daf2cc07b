// How coarse things are drawn, checked without a browser against slow, obvious versions: node --test tests/Scripts
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { BOX, BOX_WEIGHT, CALL, Detail, DOT, DOT_WEIGHT, FINEST, here, wanted } from '../../resources/js/canvas/detail.js';

let seed = 7;
function random(from = 0, to = 1) {
    seed = (seed * 1103515245 + 12345) % 2147483648;
    return from + (to - from) * (seed / 2147483648);
}

/** A mesh with versions, each coarser and farther off than the one before. */
function mesh() {
    const levels = [{ triangles: Math.floor(random(2, 3000)), rough: 0, pieces: null }];
    while (levels.length < 5 && random() < 0.7) {
        const { triangles, rough } = levels[levels.length - 1];
        if (triangles < 4) break;
        levels.push({ triangles: Math.ceil(triangles * random(0.2, 0.6)), rough: rough + random(0.001, 0.08), pieces: null });
    }
    return { coarse: Math.floor(random(levels.length > 1 ? 1 : 0, levels.length)), levels };
}

/** Many placements as the order has them, largest first. */
function model(count, largest) {
    const facts = Array.from({ length: 40 }, mesh);
    const sizes = Array.from({ length: count }, () => largest * random() ** 6 + 0.4).sort((a, b) => b - a);
    const placements = {
        count,
        capacity: count,
        object: Uint32Array.from({ length: count }, (_, n) => n + 1),
        mesh: Uint32Array.from({ length: count }, () => Math.floor(random(0, 40))),
        facts,
    };
    const states = Uint8Array.from({ length: count + 1 }, () => [1, 2, 3, 4, 5, 5, 5, 5][Math.floor(random(0, 8))]);
    return { placements, states, order: { list: Uint32Array.from({ length: count }, (_, n) => n), size: Float32Array.from(sizes), count } };
}

/** What is wanted, by trying everything: the cheapest of all that are not off by more than is allowed, and not above the rung. */
function tried({ coarse, levels }, rung, pixels, allowed) {
    if (rung === 1) return pixels <= allowed ? DOT : BOX;
    const choices = levels
        .map(({ rough, triangles }, level) => ({ level, off: rough * pixels, cost: triangles }))
        .filter(({ level, off }) => level >= (rung < 4 ? coarse : 0) && (level === (rung < 4 ? coarse : 0) || off <= allowed));
    if (rung > 2) choices.push({ level: BOX, off: 0.5 * pixels, cost: 12 }, { level: DOT, off: pixels, cost: 0 });
    const fit = choices.filter(({ level, off }) => level < BOX || off <= allowed);
    // Dots go first; a box only where a mesh would cost more.
    if (fit.some(({ level }) => level === DOT)) return DOT;
    return fit.reduce((best, one) => (one.cost < best.cost ? one : best)).level;
}

test('the coarsest that is off by no more than is allowed, and never above the rung', () => {
    for (let round = 0; round < 5000; round++) {
        const facts = mesh();
        const [rung, pixels, allowed] = [Math.floor(random(1, 6)), 500 * random() ** 4 + 0.3, [0.6, 2.5, 16][Math.floor(random(0, 3))]];
        assert.equal(wanted(facts, rung, pixels, allowed), tried(facts, rung, pixels, allowed));
    }
});

test('as little is allowed as fits into the budget, whichever part of it is short', () => {
    for (let round = 0; round < 60; round++) {
        const { placements, states, order } = model(2000, 400);
        const cost = (allowed) => {
            const sum = { triangles: 0, calls: 0, weight: 0 };
            for (let n = 0; n < order.count; n++) {
                const facts = placements.facts[placements.mesh[n]];
                const level = tried(facts, states[n + 1], order.size[n], allowed);
                sum.triangles += level === DOT ? 0 : level === BOX ? 12 : facts.levels[level].triangles;
                sum.calls += level < BOX ? 1 : 0;
                sum.weight += level === DOT ? DOT_WEIGHT : level === BOX ? BOX_WEIGHT : facts.levels[level].triangles + CALL;
            }
            return sum;
        };
        const finest = cost(FINEST);
        const budget = { triangles: Infinity, calls: Infinity, weight: Infinity };
        const short = ['triangles', 'calls', 'weight'][round % 3];
        budget[short] = finest[short] * random(0.3, 1.2);
        const detail = new Detail();
        detail.fit(placements, states, order, budget, round % 2 === 1);
        if (detail.allowed < 16) assert.ok(cost(detail.allowed)[short] <= budget[short]);
        if (finest[short] <= budget[short]) assert.equal(detail.allowed, FINEST);
        else assert.ok(cost(detail.allowed * 0.62)[short] > budget[short], 'with what was allowed a step before it would not fit');
        // What is left goes to the largest: more than before, and never more than there is.
        const drawn = { triangles: 0, calls: 0, weight: 0 };
        let better = 0;
        for (let n = 0; n < order.count; n++) {
            const facts = placements.facts[placements.mesh[n]];
            const level = detail.wanted[n];
            better += level < tried(facts, states[n + 1], order.size[n], detail.allowed) ? 1 : 0;
            drawn.triangles += level === DOT ? 0 : level === BOX ? 12 : facts.levels[level].triangles;
            drawn.calls += level < BOX ? 1 : 0;
            drawn.weight += level === DOT ? DOT_WEIGHT : level === BOX ? BOX_WEIGHT : facts.levels[level].triangles + CALL;
        }
        if (detail.allowed < 16) assert.ok(drawn[short] <= budget[short]);
        if (finest[short] > budget[short] && detail.allowed < 16) assert.ok(better > 0);
    }
});

test('of very many a part is summed up for all while the camera moves, and what is drawn is chosen as it is drawn', () => {
    for (let round = 0; round < 4; round++) {
        const { placements, states, order } = model(40000, 400);
        const least = new Detail();
        least.fit(placements, states, order, { triangles: Infinity, calls: Infinity, weight: 0 }, false);
        const budget = { triangles: Infinity, calls: Infinity, weight: least.weights[7] * [0.5, 1.3, 2, 4][round] };
        const [whole, part] = [new Detail(), new Detail()];
        whole.fit(placements, states, order, budget, false);
        part.fit(placements, states, order, budget, true);
        for (let step = 0; step < 8; step++) {
            assert.ok(Math.abs(part.weights[step] / whole.weights[step] - 1) < 0.06, `step ${step}: ${part.weights[step]}`);
        }
        assert.equal(part.fits, round > 0);
        let weight = 0;
        for (let n = 0; n < order.count; n++) {
            const index = order.list[n];
            const facts = placements.facts[placements.mesh[index]];
            const level = part.chosen(index, facts, states[placements.object[index]], order.size[index]);
            weight += level === DOT ? DOT_WEIGHT : level === BOX ? BOX_WEIGHT : facts.levels[level].triangles + CALL;
        }
        if (part.fits) assert.ok(weight < budget.weight * 1.06, 'hardly more is drawn than there is time for');
    }
});

test('a level stays while another would hardly be better, and goes when it is above the rung', () => {
    const facts = { coarse: 2, levels: [0, 0.01, 0.02, 0.04].map((rough, at) => ({ rough, triangles: 800 >> at, pieces: null })) };
    const detail = new Detail();
    detail.level = Uint8Array.of(1);
    const next = (rung, pixels) => detail.steady(0, facts, rung, pixels, detail.of(facts, rung, pixels));
    assert.equal(next(5, 29), 1, 'level 2 is off by 0.58 of 0.6 pixels');
    assert.equal(next(5, 20), 2);
    assert.equal(next(3, 29), 2, 'Coarse lets it through no finer');
    detail.level = Uint8Array.of(3);
    assert.equal(next(5, 29), 2, 'finer at once');
});

test('of what is here the nearest is drawn: rather coarser, and the mesh itself where Coarse is not made yet', () => {
    const some = (...which) => ({ coarse: 1, levels: [0, 1, 2].map((level) => ({ pieces: which.includes(level) ? [] : null })) });
    assert.equal(here(some(0, 1, 2), 1, 5), 1);
    assert.equal(here(some(0, 2), 1, 5), 2);
    assert.equal(here(some(0), 1, 5), 0);
    assert.equal(here(some(0, 1), 2, 5), 1);
    assert.equal(here(some(), 1, 5), -1);
    assert.equal(here(some(0), 1, 3), 0);
    assert.equal(here(some(0, 2), 1, 3), 2);
});
