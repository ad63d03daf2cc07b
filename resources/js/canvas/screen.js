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
    const picture = (/** @type {string} */ fragmentShader, /** @type {any} */ uniforms, transparent = false) => {
        const mesh = new Mesh(
            triangle,
            new ShaderMaterial({
                vertexShader: screenVertex,
                fragmentShader,
                uniforms,
                glslVersion: GLSL3,
                depthTest: false,
                depthWrite: false,
                transparent,
                blending: transparent ? NormalBlending : NoBlending,
            }),
        );
        mesh.frustumCulled = false;
        return mesh;
    };
    const screen = picture(screenFragment, {
        colours: { value: null },
        numbers: { value: null },
        ghosts: { value: null },
        picks: { value: texture(new Uint8Array(1024), 1024, 1, UnsignedByteType, RedFormat) },
        grape: { value: new Color() },
        hoverInk: { value: new Color() },
        hovered: { value: 0 },
        takes: { value: null },
        anyTake: { value: 0 },
        anyPick: { value: 0 },
        inked: { value: 0 },
        ink: { value: new Color() },
        size: { value: new Vector2() },
    });
    const blend = picture(meanFragment, { colours: { value: null }, share: { value: 1 } }, true);
    return { screen, blend, flat: new OrthographicCamera() };
}
