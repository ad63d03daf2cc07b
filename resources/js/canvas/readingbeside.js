import { PlacementReader } from './reader.js';

// Runs in a thread of its own.
const reader = new PlacementReader();
addEventListener('message', ({ data }) => {
    const read = reader.read(data.buffer, data.anew);
    postMessage(read, { transfer: [read.object.buffer, read.mesh.buffer, read.place.buffer, read.sphere.buffer] });
});
