const ENTRY = 24;
const COARSE = 0x80000000;

/**
 * The coarser versions that meshes have, as the server tells them: 24 bytes each, by mesh, the finest first: mesh, pack, triangles with the
 * highest bit set where the version does for the rung Coarse, vertices, metres that it is off, bytes.
 * @param {ArrayBuffer} buffer
 * @returns {Map<number, {coarse: number, versions: {pack: number, triangles: number, error: number}[]}>} by mesh; which level is Coarse
 */
export function versionsIn(buffer) {
    const view = new DataView(buffer);
    const all = new Map();
    for (let at = 0; at + ENTRY <= buffer.byteLength; at += ENTRY) {
        const mesh = view.getUint32(at, true);
        const triangles = view.getUint32(at + 8, true);
        let known = all.get(mesh);
        if (!known) all.set(mesh, (known = { coarse: 0, versions: [] }));
        known.versions.push({
            pack: view.getUint32(at + 4, true),
            triangles: triangles & ~COARSE,
            error: view.getFloat32(at + 16, true),
        });
        if (triangles & COARSE) known.coarse = known.versions.length;
    }
    return all;
}
