// Packs known data with the public encoder, and prints each case as JSON: what goes in, packed and plain, both in base64.
import { MeshoptDecoder, MeshoptEncoder } from 'meshoptimizer';

await MeshoptEncoder.ready;
await MeshoptDecoder.ready;
let seed = 7;
const random = () => (seed = (seed * 1103515245 + 12345) & 0x7fffffff) / 0x7fffffff;
const bytes = (view) => new Uint8Array(view.buffer, view.byteOffset, view.byteLength);
const base64 = (view) => Buffer.from(bytes(view)).toString('base64');
const cases = [];
const add = (packed, count, stride, mode, filter) => {
    const plain = new Uint8Array(count * stride);
    MeshoptDecoder.decodeGltfBuffer(plain, count, stride, packed, mode, filter);
    cases.push({ packed: base64(packed), plain: base64(plain), count, stride, mode, filter });
};
for (const [count, stride] of [
    [1, 4],
    [15, 8],
    [16, 12],
    [700, 16],
    [3000, 8],
    [260, 64],
    [90, 256],
]) {
    const smooth = new Uint8Array(count * stride).map(
        (_, at) => (Math.floor(at / stride) * (1 + (at % stride)) + (random() < 0.1 ? random() * 255 : 0)) & 255,
    );
    add(MeshoptEncoder.encodeGltfBuffer(smooth, count, stride, 'ATTRIBUTES'), count, stride, 'ATTRIBUTES', 'NONE');
    const wild = new Uint8Array(count * stride).map(() => random() * 256);
    add(MeshoptEncoder.encodeGltfBuffer(wild, count, stride, 'ATTRIBUTES'), count, stride, 'ATTRIBUTES', 'NONE');
}
const grid = [];
for (let y = 0; y < 30; y++)
    for (let x = 0; x < 30; x++) {
        const a = y * 31 + x;
        grid.push(a, a + 1, a + 31, a + 1, a + 32, a + 31);
    }
const soup = Uint32Array.from({ length: 900 }, () => Math.floor(random() * 5000));
for (const indices of [Uint32Array.from(grid), soup, Uint32Array.from([0, 1, 2])]) {
    add(MeshoptEncoder.encodeIndexBuffer(bytes(indices), indices.length, 4), indices.length, 4, 'TRIANGLES', 'NONE');
    add(MeshoptEncoder.encodeIndexSequence(bytes(indices), indices.length, 4), indices.length, 4, 'INDICES', 'NONE');
    const short = Uint16Array.from(indices);
    add(MeshoptEncoder.encodeIndexBuffer(bytes(short), short.length, 2), short.length, 2, 'TRIANGLES', 'NONE');
}
const unit = (width) => {
    const v = Array.from({ length: width }, () => random() * 2 - 1);
    const l = Math.hypot(...v) || 1;
    return v.map((n) => n / l);
};
const normals = Float32Array.from({ length: 400 }).map((_, at) => at);
for (let at = 0; at < 100; at++) normals.set([...unit(3), 0], at * 4);
for (const [stride, bits] of [
    [4, 8],
    [8, 12],
])
    add(
        MeshoptEncoder.encodeGltfBuffer(MeshoptEncoder.encodeFilterOct(normals, 100, stride, bits), 100, stride, 'ATTRIBUTES'),
        100,
        stride,
        'ATTRIBUTES',
        'OCTAHEDRAL',
    );
const turns = new Float32Array(400);
for (let at = 0; at < 100; at++) turns.set(unit(4), at * 4);
add(
    MeshoptEncoder.encodeGltfBuffer(MeshoptEncoder.encodeFilterQuat(turns, 100, 8, 12), 100, 8, 'ATTRIBUTES'),
    100,
    8,
    'ATTRIBUTES',
    'QUATERNION',
);
const floats = Float32Array.from({ length: 300 }, () => (random() - 0.5) * 10 ** (random() * 8 - 4));
add(
    MeshoptEncoder.encodeGltfBuffer(MeshoptEncoder.encodeFilterExp(floats, 100, 12, 15), 100, 12, 'ATTRIBUTES'),
    100,
    12,
    'ATTRIBUTES',
    'EXPONENTIAL',
);
process.stdout.write(JSON.stringify(cases));
