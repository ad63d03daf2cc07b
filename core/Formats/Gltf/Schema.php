<?php

declare(strict_types=1);

namespace VineShelf\Formats\Gltf;

use VineShelf\Formats\UnreadableFile;

/**
 * What type each member of a glTF 2.0 file has, as the properties reference of the specification (Khronos, section 5) and the extensions
 * that are read say it. What is of another type is refused with its place; what nobody can misunderstand is taken and named. Members that
 * the specification does not have may be anything.
 *
 * Types: "text", "number", "whole", "flag", "numbers", "wholes" and "texts" for lists, "indices" for an object of whole numbers, "object",
 * an entry of this table, or "list of" one.
 */
final class Schema
{
    private const TEXTURE = ['index' => 'whole', 'texCoord' => 'whole', 'extensions' => 'texture info extensions'];

    private const OF = [
        'asset' => ['copyright' => 'text', 'generator' => 'text', 'version' => 'text', 'minVersion' => 'text', 'extensions' => 'object'],
        'accessors' => [
            'bufferView' => 'whole',
            'byteOffset' => 'whole',
            'componentType' => 'whole',
            'normalized' => 'flag',
            'count' => 'whole',
            'type' => 'text',
            'max' => 'numbers',
            'min' => 'numbers',
            'sparse' => 'sparse',
            'name' => 'name',
            'extensions' => 'object',
        ],
        'sparse' => ['count' => 'whole', 'indices' => 'sparse indices', 'values' => 'sparse values', 'extensions' => 'object'],
        'sparse indices' => ['bufferView' => 'whole', 'byteOffset' => 'whole', 'componentType' => 'whole', 'extensions' => 'object'],
        'sparse values' => ['bufferView' => 'whole', 'byteOffset' => 'whole', 'extensions' => 'object'],
        'buffers' => ['uri' => 'text', 'byteLength' => 'whole', 'name' => 'name', 'extensions' => 'object'],
        'bufferViews' => [
            'buffer' => 'whole',
            'byteOffset' => 'whole',
            'byteLength' => 'whole',
            'byteStride' => 'whole',
            'target' => 'whole',
            'name' => 'name',
            'extensions' => 'view extensions',
        ],
        'view extensions' => ['EXT_meshopt_compression' => 'meshopt'],
        'meshopt' => [
            'buffer' => 'whole',
            'byteOffset' => 'whole',
            'byteLength' => 'whole',
            'byteStride' => 'whole',
            'count' => 'whole',
            'mode' => 'text',
            'filter' => 'text',
        ],
        'cameras' => [
            'orthographic' => 'orthographic',
            'perspective' => 'perspective',
            'type' => 'text',
            'name' => 'name',
            'extensions' => 'object',
        ],
        'orthographic' => ['xmag' => 'number', 'ymag' => 'number', 'zfar' => 'number', 'znear' => 'number', 'extensions' => 'object'],
        'perspective' => ['aspectRatio' => 'number', 'yfov' => 'number', 'zfar' => 'number', 'znear' => 'number', 'extensions' => 'object'],
        'images' => ['uri' => 'text', 'mimeType' => 'text', 'bufferView' => 'whole', 'name' => 'name', 'extensions' => 'object'],
        'materials' => [
            'name' => 'name',
            'pbrMetallicRoughness' => 'metallic roughness',
            'normalTexture' => 'normal map',
            'occlusionTexture' => 'occlusion map',
            'emissiveTexture' => 'texture info',
            'emissiveFactor' => 'numbers',
            'alphaMode' => 'text',
            'alphaCutoff' => 'number',
            'doubleSided' => 'flag',
            'extensions' => 'material extensions',
        ],
        'metallic roughness' => [
            'baseColorFactor' => 'numbers',
            'baseColorTexture' => 'texture info',
            'metallicFactor' => 'number',
            'roughnessFactor' => 'number',
            'metallicRoughnessTexture' => 'texture info',
            'extensions' => 'object',
        ],
        'texture info' => self::TEXTURE,
        'normal map' => self::TEXTURE + ['scale' => 'number'],
        'occlusion map' => self::TEXTURE + ['strength' => 'number'],
        'texture info extensions' => ['KHR_texture_transform' => 'texture transform'],
        'texture transform' => ['offset' => 'numbers', 'rotation' => 'number', 'scale' => 'numbers', 'texCoord' => 'whole'],
        'material extensions' => [
            'KHR_materials_pbrSpecularGlossiness' => 'specular glossiness',
            'KHR_materials_emissive_strength' => 'emissive strength',
            'KHR_materials_unlit' => 'object',
        ],
        'specular glossiness' => [
            'diffuseFactor' => 'numbers',
            'diffuseTexture' => 'texture info',
            'specularFactor' => 'numbers',
            'glossinessFactor' => 'number',
            'specularGlossinessTexture' => 'texture info',
        ],
        'emissive strength' => ['emissiveStrength' => 'number'],
        'meshes' => ['primitives' => 'list of primitive', 'weights' => 'numbers', 'name' => 'name', 'extensions' => 'object'],
        'primitive' => [
            'attributes' => 'indices',
            'indices' => 'whole',
            'material' => 'whole',
            'mode' => 'whole',
            'targets' => 'list of indices',
            'extensions' => 'object',
        ],
        'nodes' => [
            'camera' => 'whole',
            'children' => 'wholes',
            'skin' => 'whole',
            'matrix' => 'numbers',
            'mesh' => 'whole',
            'rotation' => 'numbers',
            'scale' => 'numbers',
            'translation' => 'numbers',
            'weights' => 'numbers',
            'name' => 'name',
            'extensions' => 'node extensions',
        ],
        'node extensions' => ['KHR_lights_punctual' => 'node light', 'EXT_mesh_gpu_instancing' => 'instancing'],
        'node light' => ['light' => 'whole'],
        'instancing' => ['attributes' => 'indices'],
        'samplers' => [
            'magFilter' => 'whole',
            'minFilter' => 'whole',
            'wrapS' => 'whole',
            'wrapT' => 'whole',
            'name' => 'name',
            'extensions' => 'object',
        ],
        'scenes' => ['nodes' => 'wholes', 'name' => 'name', 'extensions' => 'object'],
        'textures' => ['sampler' => 'whole', 'source' => 'whole', 'name' => 'name', 'extensions' => 'texture extensions'],
        'texture extensions' => ['EXT_texture_webp' => 'webp'],
        'webp' => ['source' => 'whole'],
        'extensions' => ['KHR_lights_punctual' => 'lights'],
        'lights' => ['lights' => 'list of light'],
        'light' => [
            'name' => 'name',
            'color' => 'numbers',
            'intensity' => 'number',
            'type' => 'text',
            'spot' => 'spot',
            'range' => 'number',
        ],
        'spot' => ['innerConeAngle' => 'number', 'outerConeAngle' => 'number'],
    ];

    /** What is wrong with a value, for what it should be. */
    private const WANTED = [
        'text' => 'a text',
        'number' => 'a number',
        'whole' => 'a whole number from 0 on',
        'flag' => 'true or false',
        'numbers' => 'a list of numbers',
        'wholes' => 'a list of whole numbers',
        'indices' => 'an object of whole numbers',
        'name' => 'a text',
    ];

    private int $nothings = 0;

    private int $names = 0;

    /**
     * @param string $kind  an entry of the table, for example "materials"
     * @param mixed  $value what stands in the file
     * @param string $place what it is called, for example "material 3"
     *
     * @throws UnreadableFile when a member is of another type
     */
    public function check(string $kind, mixed $value, string $place): void
    {
        if (! is_array($value) || ($value !== [] && array_is_list($value))) {
            throw UnreadableFile::because(ucfirst($place).' is not an object.');
        }
        $types = self::OF[$kind];
        foreach ($value as $name => $member) {
            $type = $types[$name] ?? null;
            // Most members of most files are one of these, and right.
            if ($type === null || (is_string($member) ? $type === 'name' : $type === 'whole' && is_int($member) && $member >= 0)) {
                continue;
            }
            if ($member === null) {
                $this->nothings++;
            } elseif (isset(self::OF[$type])) {
                $this->check($type, $member, "\"$name\" of $place");
            } elseif (str_starts_with($type, 'list of ')) {
                $this->checkList(substr($type, 8), $member, (string) $name, $place);
            } elseif (! $this->is($type, $member)) {
                throw UnreadableFile::because("\"$name\" of $place must be ".(self::WANTED[$type] ?? 'an object').'.');
            }
        }
    }

    /** @return list<string> what was taken though it is of another type */
    public function remarks(): array
    {
        $remarks = [];
        if ($this->nothings > 0) {
            $remarks[] = number_format($this->nothings).' '.($this->nothings === 1 ? 'member is' : 'members are').
                ' null where the format has no such thing; taken as if not there.';
        }
        if ($this->names > 0) {
            $remarks[] = number_format($this->names).' '.($this->names === 1 ? 'name is a number' : 'names are numbers').'; taken as '.
                ($this->names === 1 ? 'a text.' : 'texts.');
        }

        return $remarks;
    }

    private function checkList(string $of, mixed $members, string $name, string $place): void
    {
        if (! is_array($members) || ! array_is_list($members)) {
            throw UnreadableFile::because("\"$name\" of $place must be a list.");
        }
        foreach ($members as $at => $member) {
            if (isset(self::OF[$of])) {
                $this->check($of, $member, "$of $at of $place");
            } elseif (! $this->is($of, $member)) {
                throw UnreadableFile::because("\"$name\" $at of $place must be ".(self::WANTED[$of] ?? 'an object').'.');
            }
        }
    }

    private function is(string $type, mixed $value): bool
    {
        if ($type === 'name' && (is_int($value) || is_float($value))) {
            $this->names++;

            return true;
        }

        return match ($type) {
            'text', 'name' => is_string($value),
            'number' => is_int($value) || is_float($value),
            'whole' => self::isWhole($value),
            'flag' => is_bool($value),
            'numbers' => self::areNumbers($value),
            'wholes' => is_array($value) && array_is_list($value) && self::areWhole($value),
            'indices' => is_array($value) && ($value === [] || ! array_is_list($value)) && self::areWhole($value),
            default => is_array($value) && ($value === [] || ! array_is_list($value)),
        };
    }

    private static function areNumbers(mixed $value): bool
    {
        if (! is_array($value) || ! array_is_list($value)) {
            return false;
        }
        foreach ($value as $one) {
            if (! is_float($one) && ! is_int($one)) {
                return false;
            }
        }

        return true;
    }

    /** @param array<mixed> $values */
    private static function areWhole(array $values): bool
    {
        foreach ($values as $one) {
            if (! self::isWhole($one)) {
                return false;
            }
        }

        return true;
    }

    /** Some exporters write whole numbers as 1.0. */
    private static function isWhole(mixed $value): bool
    {
        return (is_int($value) && $value >= 0) || (is_float($value) && $value >= 0 && floor($value) === $value && $value < 2 ** 53);
    }
}
