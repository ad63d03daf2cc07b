// What is drawn before the graphics card is ready, against rays through the middle of pixels: node --test tests/Scripts
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { Color, Matrix4, OrthographicCamera, PerspectiveCamera, Vector3 } from 'three';
import { Boxes } from '../../resources/js/canvas/draft.js';
import { Order } from '../../resources/js/canvas/order.js';
import { packed, Raster } from '../../resources/js/canvas/raster.js';

let seed = 11;
const random = (low = 0, high = 1) => {
    seed = (seed * 1103515245 + 12345) & 0x7fffffff;
    return low + ((high - low) * seed) / 0x7fffffff;
};
const [WIDTH, HEIGHT] = [120, 90];

/** Boxes anywhere, turned, stretched and mirrored. */
function model(count) {
    const placements = { count, capacity: count, facts: [], mesh: new Uint32Array(count), object: new Uint32Array(count) };
    placements.sphere = new Float32Array(count * 4);
    const data = new Float32Array(count * 16);
    placements.place = { image: { data } };
    for (let index = 0; index < count; index++) {
        const half = [random(0.1, 3), random(0.1, 3), index % 9 === 4 ? 0 : random(0.1, 3)];
        placements.facts.push({ half, colour: (random(0, 0xffffff) | 0xff000000) >>> 0 });
        placements.mesh[index] = index;
        placements.object[index] = index + 1;
        const turn = new Matrix4()
            .makeRotationAxis(new Vector3(random(-1, 1), random(-1, 1), random(-1, 1)).normalize(), random(0, 6))
            .scale(new Vector3(random(0.4, 2), random(0.4, 2), random(0.4, 2) * (index % 3 === 0 ? -1 : 1)))
            .setPosition(random(-9, 9), random(-9, 9), random(-6, 6));
        const e = turn.elements;
        data.set([e[0], e[4], e[8], e[12], e[1], e[5], e[9], e[13], e[2], e[6], e[10], e[14]], index * 16);
        placements.sphere.set([e[12], e[13], e[14], 2 * Math.hypot(...half)], index * 4);
    }
    return placements;
}

function look(count, { states = {}, picks = [], tints = null } = {}) {
    const all = new Uint8Array(count + 1).fill(5);
    for (const [number, state] of Object.entries(states)) all[Number(number)] = state;
    const pick = new Uint8Array(1024);
    for (const number of picks) pick[number] = 1;
    const value = (/** @type {any} */ it) => ({ value: it });
    return {
        states: all,
        backdrop: [new Color(0.1, 0.2, 0.3), new Color(0.4, 0.5, 0.6)],
        shared: {
            skyLight: value(new Vector3(0.7, 0.8, 0.9)),
            groundLight: value(new Vector3(0.4, 0.3, 0.2)),
            sunLight: value(new Vector3(0.4, 0.3, 0.2)),
            sunWay: value(new Vector3(0.4, -0.5, 0.7).normalize()),
            boxFill: value(new Color(0.9, 0.8, 0.7)),
            tints: value({ image: { data: tints ?? new Uint8Array(4) } }),
        },
        screen: { grape: value(new Color(0.7, 0.3, 0.6)), picks: value({ image: { data: pick } }) },
    };
}

function camera(kind) {
    const made = kind === 'parallel' ? new OrthographicCamera(-12, 12, 9, -9, -60, 60) : new PerspectiveCamera(50, WIDTH / HEIGHT, 0.5, 90);
    made.up.set(0, 0, 1);
    made.position.set(
        ...(kind === 'within' ? [random(-3, 3), random(-3, 3), random(-2, 2)] : [random(12, 20), random(-20, -12), random(2, 12)]),
    );
    made.lookAt(random(-2, 2), random(-2, 2), random(-2, 2));
    made.updateProjectionMatrix();
    made.updateMatrixWorld(true);
    return made;
}

/** The first box that a ray through a pixel meets between the nearest plane and the furthest, and where its surface faces there. */
function met(placements, camera, x, y, states) {
    const at = (/** @type {number} */ z) => new Vector3((2 * x) / WIDTH - 1, 1 - (2 * y) / HEIGHT, z).unproject(camera);
    const [from, to] = [at(-1), at(1)];
    let first = { share: Infinity, number: 0, normal: new Vector3(), index: -1 };
    for (let index = 0; index < placements.count; index++) {
        const state = states[placements.object[index]] & 15;
        if (state === 0 || state === 2) continue;
        const m = placements.place.image.data.subarray(index * 16, index * 16 + 12);
        const turn = new Matrix4().set(...m, 0, 0, 0, 1);
        const back = turn.clone().invert();
        const [a, b] = [from.clone().applyMatrix4(back).toArray(), to.clone().applyMatrix4(back).toArray()];
        placements.facts[index].half.forEach((half, axis) => {
            for (const side of [-1, 1]) {
                const share = (side * half - a[axis]) / (b[axis] - a[axis]);
                if (!(share > 0 && share < first.share)) continue;
                const there = a.map((value, other) => value + (b[other] - value) * share);
                const on = there.every((value, other) => other === axis || Math.abs(value) <= placements.facts[index].half[other]);
                if (!on) continue;
                const normal = new Vector3()
                    .setComponent(axis, 1)
                    .applyMatrix4(back.clone().setPosition(0, 0, 0).transpose())
                    .normalize();
                const facing = normal.dot(to.clone().sub(from)) > 0 ? -1 : 1;
                first = { share, number: placements.object[index], normal: normal.multiplyScalar(facing), index };
            }
        });
    }
    return first;
}

for (const kind of ['from outside', 'parallel', 'within']) {
    test(`boxes stand where rays meet them, lit as they face: ${kind}`, () => {
        let [told, shown, lit] = [0, 0, 0];
        for (let round = 0; round < 6; round++) {
            const placements = model(40);
            const looks = look(40, { states: { 3: 0, 7: 2, 12: 0 } });
            const eye = camera(kind);
            const raster = new Raster(WIDTH, HEIGHT);
            new Boxes().draw(raster, placements, looks, new Order(), eye);
            for (let try_ = 0; try_ < 150; try_++) {
                const [x, y] = [Math.floor(random(1, WIDTH - 1)), Math.floor(random(1, HEIGHT - 1))];
                const { number, normal, index } = met(placements, eye, x + 0.5, y + 0.5, looks.states);
                const all = [0.4, 0.6].flatMap((dx) => [0.4, 0.6].map((dy) => met(placements, eye, x + dx, y + dy, looks.states).number));
                // On an edge either is right.
                if (all.some((other) => other !== number)) continue;
                told++;
                assert.equal(raster.numbers[y * WIDTH + x], number, `round ${round}, ${x}, ${y}`);
                if (number === 0) continue;
                shown++;
                const { skyLight, groundLight, sunLight, sunWay } = looks.shared;
                const sun = Math.max(0, normal.dot(sunWay.value));
                const expected = [0, 1, 2].map((channel) => {
                    const own = ((placements.facts[index].colour >>> (8 * channel)) & 255) / 255;
                    const up = normal.z * 0.5 + 0.5;
                    const [sky, ground] = [skyLight.value.getComponent(channel), groundLight.value.getComponent(channel)];
                    return own * Math.sqrt(ground * (1 - up) + sky * up + sunLight.value.getComponent(channel) * sun);
                });
                const pixel = raster.pixels[y * WIDTH + x];
                const off = expected.map((value, channel) => Math.abs(((pixel >>> (8 * channel)) & 255) - Math.min(255, value * 255)));
                // Beside an edge of the same box another of its faces may be seen.
                if (Math.max(...off) < 2) lit++;
            }
        }
        assert.ok(told > 500 && shown > 100, `${told} told, ${shown} shown`);
        assert.ok(lit > shown * 0.97, `${lit} of ${shown} are lit as they face`);
    });
}

test('what is picked, tinted and to be a box has those colours, and the background is what is left', () => {
    const placements = model(3);
    placements.facts.forEach((facts, index) => {
        facts.half = [1, 1, 1];
        facts.colour = 0xff404040;
        placements.place.image.data.set([1, 0, 0, (index - 1) * 4, 0, 1, 0, 0, 0, 0, 1, 0], index * 16);
        placements.sphere.set([(index - 1) * 4, 0, 0, 2], index * 4);
    });
    const tints = new Uint8Array(16);
    tints.set([200, 40, 10, 255], 8);
    const looks = look(3, { states: { 3: 1 }, picks: [1], tints });
    looks.shared.skyLight.value.set(1, 1, 1);
    looks.shared.groundLight.value.set(1, 1, 1);
    looks.shared.sunLight.value.set(0, 0, 0);
    const eye = new OrthographicCamera(-8, 8, 6, -6, -60, 60);
    eye.position.set(0, -20, 0);
    eye.up.set(0, 0, 1);
    eye.lookAt(0, 0, 0);
    eye.updateMatrixWorld(true);
    const raster = new Raster(WIDTH, HEIGHT);
    assert.equal(new Boxes().draw(raster, placements, looks, new Order(), eye), 3);
    const at = (x, y = HEIGHT / 2) => raster.pixels[y * WIDTH + x];
    const box = (fill) => Math.sqrt((64 / 255) ** 2 + (fill ** 2 - (64 / 255) ** 2) * 0.72);
    assert.equal(at(30), packed(0.7, 0.3, 0.6), 'picked');
    assert.equal(at(60), packed(200 / 255, 40 / 255, 10 / 255), 'tinted');
    assert.equal(at(90), packed(box(0.9), box(0.8), box(0.7)), 'a box');
    assert.equal(at(5, 2), packed(0.4, 0.5, 0.6), 'above');
    assert.equal(at(5, HEIGHT - 2), packed(0.1, 0.2, 0.3), 'below');
    assert.deepEqual(
        [30, 60, 90, 5].map((x) => raster.numbers[(HEIGHT / 2) * WIDTH + x]),
        [1, 2, 3, 0],
    );
});
