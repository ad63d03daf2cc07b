import {
    BufferAttribute,
    BufferGeometry,
    Color,
    GLSL3,
    Mesh,
    NoBlending,
    NormalBlending,
    OrthographicCamera,
    RedFormat,
    ShaderMaterial,
    UnsignedByteType,
    Vector2,
} from 'three';
import { meanFragment, screenFragment, screenVertex } from './shaders.js';
import { texture } from './textures.js';

/** @typedef {ReturnType<typeof makeScreen>} Screen */

/** What covers the whole picture: the step that puts it on the screen, and the one that averages shifted pictures. */
export function makeScreen() {
    const triangle = new BufferGeometry();
    triangle.setAttribute('position', new BufferAttribute(new Float32Array([-1, -1, 0, 3, -1, 0, -1, 3, 0]), 3));
    const picture = (/** @type {ShaderMaterial} */ material) => {
        const mesh = new Mesh(triangle, material);
        mesh.frustumCulled = false;
        return mesh;
    };
    const uniforms = {
        colours: { value: null },
        numbers: { value: null },
        ghosts: { value: null },
        picks: { value: texture(new Uint8Array(1024), 1024, 1, UnsignedByteType, RedFormat) },
        grape: { value: new Color() },
        hoverInk: { value: new Color() },
        hovered: { value: 0 },
        takes: { value: null },
        inked: { value: 0 },
        ink: { value: new Color() },
        size: { value: new Vector2() },
        /** Whether anything is picked, and whether what is under the pointer goes by what a click takes. */
        anyPick: { value: 0 },
        anyTake: { value: 0 },
    };
    /** @type {Map<string, ShaderMaterial>} */
    const materials = new Map();
    const material = (/** @type {string[]} */ does) => {
        const key = does.join();
        const made = materials.get(key) ?? flatMaterial(screenFragment, uniforms, does);
        materials.set(key, made);
        return made;
    };
    const screen = picture(material([]));
    /** Has the step to the screen do what is needed now, and nothing else. */
    const dress = (moving = false) => {
        const { inked, anyPick, hovered, anyTake } = uniforms;
        const hovers = hovered.value > 0;
        screen.material = material([
            ...(inked.value > 0 ? ['INKED'] : []),
            ...(anyPick.value > 0 ? ['PICKED', ...(moving && !hovers ? ['MOVING'] : [])] : []),
            ...(hovers ? ['HOVERED'] : []),
            ...(hovers && anyTake.value > 0 ? ['TAKEN'] : []),
        ]);
    };
    const blend = picture(flatMaterial(meanFragment, { colours: { value: null }, share: { value: 1 } }, [], true));
    return { screen, dress, blend, flat: new OrthographicCamera() };
}

/**
 * @param {string} fragmentShader
 * @param {Record<string, {value: any}>} uniforms
 * @param {string[]} defines
 */
function flatMaterial(fragmentShader, uniforms, defines, transparent = false) {
    return new ShaderMaterial({
        vertexShader: screenVertex,
        fragmentShader,
        uniforms,
        defines: Object.fromEntries(defines.map((name) => [name, ''])),
        glslVersion: GLSL3,
        depthTest: false,
        depthWrite: false,
        transparent,
        blending: transparent ? NormalBlending : NoBlending,
    });
}
