import {
    DataArrayTexture,
    DataTexture,
    LinearFilter,
    LinearMipmapLinearFilter,
    NearestFilter,
    NoColorSpace,
    RGBAFormat,
    RedFormat,
    RepeatWrapping,
    SRGBColorSpace,
    UnsignedByteType,
} from 'three';

/** @returns {DataTexture} */
export function texture(
    /** @type {any} */ data,
    /** @type {number} */ width,
    /** @type {number} */ height,
    /** @type {any} */ type,
    /** @type {any} */ format,
) {
    const made = new DataTexture(data, width, height, format, type);
    made.minFilter = made.magFilter = NearestFilter;
    made.unpackAlignment = 1;
    made.needsUpdate = true;
    return made;
}

/** @param {Uint8Array} values @param {(value: number) => number} map */
export function byNumber(values, map) {
    const width = 1024;
    const rows = Math.max(1, Math.ceil(values.length / width));
    const data = new Uint8Array(width * rows);
    for (let at = 0; at < values.length; at++) data[at] = map(values[at]);
    return texture(data, width, rows, UnsignedByteType, RedFormat);
}

/** @param {Uint8Array | null} bytes four by object number; null for none */
export function fourByNumber(bytes) {
    const width = 1024;
    const rows = Math.max(1, Math.ceil((bytes?.length ?? 4) / 4 / width));
    const data = new Uint8Array(width * rows * 4);
    if (bytes) data.set(bytes);
    return texture(data, width, rows, UnsignedByteType, RGBAFormat);
}

export function emptyPictures() {
    const array = new DataArrayTexture(new Uint8Array(4).fill(255), 1, 1, 1);
    array.needsUpdate = true;
    return array;
}

/**
 * All pictures of a project as the layers of one texture, so that one call can draw many materials.
 * @param {(ImageBitmap | undefined)[]} pictures
 * @param {boolean} areColours or numbers
 */
export function stackedPictures(pictures, areColours) {
    const size = pictures.length > 24 ? 256 : 512;
    const board = new OffscreenCanvas(size, size);
    const pen = /** @type {OffscreenCanvasRenderingContext2D} */ (board.getContext('2d', { willReadFrequently: true }));
    const data = new Uint8Array(size * size * 4 * pictures.length);
    pictures.forEach((picture, layer) => {
        pen.clearRect(0, 0, size, size);
        if (picture) pen.drawImage(picture, 0, 0, size, size);
        data.set(pen.getImageData(0, 0, size, size).data, layer * size * size * 4);
    });
    const array = new DataArrayTexture(data, size, size, pictures.length);
    array.wrapS = array.wrapT = RepeatWrapping;
    array.minFilter = LinearMipmapLinearFilter;
    array.magFilter = LinearFilter;
    array.generateMipmaps = true;
    array.colorSpace = areColours ? SRGBColorSpace : NoColorSpace;
    array.format = RGBAFormat;
    array.internalFormat = areColours ? 'SRGB8_ALPHA8' : 'RGBA8';
    array.needsUpdate = true;
    return array;
}
