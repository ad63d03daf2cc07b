// Unpacks what we have packed with the public decoder, and prints the MD5 of each as JSON.
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { MeshoptDecoder } from 'meshoptimizer';

await MeshoptDecoder.ready;
const cases = JSON.parse(readFileSync(process.argv[2], 'utf8'));
const sums = cases.map(({ packed, count, stride, mode }) => {
    const plain = new Uint8Array(count * stride);
    MeshoptDecoder.decodeGltfBuffer(plain, count, stride, Buffer.from(packed, 'base64'), mode, 'NONE');
    return createHash('md5').update(plain).digest('hex');
});
process.stdout.write(JSON.stringify(sums));
