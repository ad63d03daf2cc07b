// Reads answers of placements as the canvas does and prints what came of them: object, mesh and twelve floats of each.
import { readFileSync } from 'node:fs';
import { Placements } from '../../../resources/js/canvas/placements.js';
import { PlacementReader } from '../../../resources/js/canvas/reader.js';

const placements = new Placements();
const reader = new PlacementReader();
for (const path of process.argv.slice(2)) {
    const file = readFileSync(path);
    placements.append(reader.read(file.buffer.slice(file.byteOffset, file.byteOffset + file.length)));
}
const found = [];
for (let index = 0; index < placements.count; index++) {
    const { number, half, triangles, pack, colour } = placements.facts[placements.mesh[index]];
    found.push({
        object: placements.object[index],
        mesh: number,
        facts: [pack, triangles, colour, ...half],
        m: Array.from(placements.place.image.data.subarray(index * 16, index * 16 + 12)),
    });
}
console.log(JSON.stringify(found));
