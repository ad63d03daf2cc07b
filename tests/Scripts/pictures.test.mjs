import assert from 'node:assert/strict';
import test from 'node:test';
import { unzipSync } from 'fflate';
import { apart, tilesOf } from '../../resources/js/canvas/tiles.js';
import { fileName, fileNames, sizeOf } from '../../resources/js/pictures/naming.js';
import { Bundle } from '../../resources/js/pictures/zip.js';

test('names of views become names that every system of files takes, each once', () => {
    const odd = [
        ['Hall at dusk', 'Hall at dusk'],
        ['  a / b \\ c : d ', 'a b c d'],
        ['../../etc/passwd', 'etc passwd'],
        ['...', 'View'],
        ['', 'View'],
        ['\u0000\u001f', 'View'],
        ['CON', 'CON view'],
        ['lpt1', 'lpt1 view'],
        ['Ende.', 'Ende'],
        ['Schwimmbad – Süd', 'Schwimmbad – Süd'],
        ['gnp.\u202egpj', 'gnp. gpj'],
    ];
    for (const [name, expected] of odd) assert.equal(fileName(name), expected, JSON.stringify(name));
    const long = fileName('水'.repeat(120));
    assert.ok(new TextEncoder().encode(long).length <= 200 && /^水+$/.test(long), 'no half of a letter is left');
    assert.deepEqual(fileNames(['Hall', 'hall', 'Hall (2)', 'Hall', ''], '.png'), [
        'Hall.png',
        'hall (2).png',
        'Hall (2) (2).png',
        'Hall (3).png',
        'View.png',
    ]);
});

test('a picture has the shape of its view, and its longer side is what was asked for', () => {
    assert.deepEqual(sizeOf(1.5, 1920), [1920, 1280]);
    assert.deepEqual(sizeOf(0.5, 4096), [2048, 4096]);
    assert.deepEqual(sizeOf(1, 64), [64, 64]);
    assert.deepEqual(sizeOf(1000, 64), [64, 1]);
});

test('tiles cover a picture, every pixel once', () => {
    for (const [width, height, side] of [
        [1, 1, 4],
        [4, 4, 4],
        [9, 5, 4],
        [3, 13, 5],
    ]) {
        const times = new Uint8Array(width * height);
        for (const { left, top, wide, high } of tilesOf(width, height, side)) {
            assert.ok(wide > 0 && wide <= side && high > 0 && high <= side);
            for (let y = top; y < top + high; y++) for (let x = left; x < left + wide; x++) times[y * width + x]++;
        }
        assert.deepEqual(new Set(times), new Set([1]));
    }
});

test('what stands before black and before white is told apart from the ground, whatever it lets through', () => {
    const colours = [
        [200, 100, 50, 1],
        [200, 100, 50, 0.5],
        [255, 255, 255, 0.25],
        [0, 0, 0, 0.75],
        [90, 90, 90, 0],
    ];
    const before = (ground) =>
        Uint8Array.from(
            colours.flatMap(([r, g, b, solid]) => [...[r, g, b].map((value) => Math.round(value * solid + ground * (1 - solid))), 255]),
        );
    const both = apart(before(0), before(255));
    colours.forEach(([r, g, b, solid], at) => {
        assert.ok(Math.abs(both[at * 4 + 3] - solid * 255) <= 1);
        // Over any other ground it looks as it would have been drawn there.
        for (const ground of [30, 128, 240])
            [r, g, b].forEach((value, channel) => {
                const alpha = both[at * 4 + 3] / 255;
                const seen = both[at * 4 + channel] * alpha + ground * (1 - alpha);
                assert.ok(Math.abs(seen - (value * solid + ground * (1 - solid))) < 2.5, `${at} ${channel} before ${ground}`);
            });
    });
});

test('pictures go into a zip as they are, under their names', async () => {
    const bundle = new Bundle();
    await bundle.add('Süd.png', new Blob([new Uint8Array([1, 2, 3])]));
    await bundle.add('Hall.png', new Blob([new Uint8Array(100_000).fill(7)]));
    const files = unzipSync(new Uint8Array(await bundle.end().arrayBuffer()));
    assert.deepEqual(Object.keys(files), ['Süd.png', 'Hall.png']);
    assert.deepEqual([...files['Süd.png']], [1, 2, 3]);
    assert.equal(files['Hall.png'].length, 100_000);
});
