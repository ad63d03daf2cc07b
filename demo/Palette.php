<?php

declare(strict_types=1);

namespace MarlpitBaths;

use VineShelf\Geometry\GlbWriter;

/** The materials of the baths, and the few textures that they use, drawn here pixel by pixel. */
final class Palette
{
    /** name => [colour, alpha, roughness, texture, metres that the texture spans] */
    private const MATERIALS = [
        'glulam larch' => ['#b98a52', 1, 0.8, 'timber', 2.0],
        'glulam dark' => ['#8f6a3e', 1, 0.8, 'timber', 2.0],
        'roof felt' => ['#c9c2ac', 1, 0.9, null, 1],
        'roof deck' => ['#e2d3b4', 1, 0.9, 'timber', 3.0],
        'clear glass' => ['#a9cfd0', 0.26, 0.1, null, 1],
        'alu frame' => ['#6f7c78', 1, 0.5, null, 1],
        'pool tile' => ['#bfe0de', 1, 0.4, 'tile', 1.0],
        'pool tile dark' => ['#2f6f7c', 1, 0.4, 'tile', 1.0],
        'coping stone' => ['#f1ead9', 1, 0.8, null, 1],
        'water' => ['#58aab8', 0.55, 0.05, null, 1],
        'lane red' => ['#d26b4f', 1, 0.5, null, 1],
        'lane white' => ['#f3ead6', 1, 0.5, null, 1],
        'stainless' => ['#b8c0be', 1, 0.3, null, 1],
        'deck tile' => ['#e6dcc6', 1, 0.7, 'terrazzo', 2.0],
        'concrete' => ['#cfc8b6', 1, 0.9, 'terrazzo', 4.0],
        'seat green' => ['#3f7a63', 1, 0.6, null, 1],
        'seat ochre' => ['#c98f4a', 1, 0.6, null, 1],
        'locker teal' => ['#5d8f84', 1, 0.6, null, 1],
        'locker ochre' => ['#c98f4a', 1, 0.6, null, 1],
        'locker sand' => ['#d8c48f', 1, 0.6, null, 1],
        'cabin panel' => ['#e9dcbd', 1, 0.7, null, 1],
        'pipe blue' => ['#4f7d9a', 1, 0.5, null, 1],
        'pipe red' => ['#b4573f', 1, 0.5, null, 1],
        'vessel grey' => ['#8d979b', 1, 0.5, null, 1],
        'motor green' => ['#4f6b58', 1, 0.5, null, 1],
        'oak' => ['#a9794a', 1, 0.7, 'timber', 1.5],
        'brass lamp' => ['#d9b36a', 1, 0.4, null, 1],
        'lamp glow' => ['#fff4d6', 1, 0.4, null, 1],
        'leaf' => ['#7f9c6a', 1, 0.9, null, 1],
        'leaf dark' => ['#5f7f55', 1, 0.9, null, 1],
        'bark' => ['#7a5c3e', 1, 0.9, null, 1],
        'lawn' => ['#b9c29a', 1, 0.9, null, 1],
        'paving' => ['#d6ccb6', 1, 0.9, 'terrazzo', 3.0],
        'scheme A wall' => ['#dfe6d6', 1, 0.7, 'tile', 0.8],
        'scheme A floor' => ['#cfd9cf', 1, 0.7, 'tile', 0.6],
        'scheme B wall' => ['#d9a58a', 1, 0.7, 'tile', 0.8],
        'scheme B floor' => ['#b9826a', 1, 0.7, 'tile', 0.6],
        'rubber black' => ['#2b3330', 1, 0.9, null, 1],
        'signal orange' => ['#df7a3a', 1, 0.6, null, 1],
        'fabric cream' => ['#efe3cc', 1, 0.9, null, 1],
        'default' => ['#c0c0c0', 1, 0.9, null, 1],
    ];

    /** @var array<string, int> */
    private array $materials = [];

    /** @var array<string, int> */
    private array $textures = [];

    public function __construct(private readonly GlbWriter $file) {}

    public function material(string $name): int
    {
        if (isset($this->materials[$name])) {
            return $this->materials[$name];
        }
        [$colour, $alpha, $roughness, $texture] = self::MATERIALS[$name];
        $linear = [];
        foreach ([1, 3, 5] as $at) {
            $value = hexdec(substr($colour, $at, 2)) / 255;
            $linear[] = round($value <= 0.04045 ? $value / 12.92 : (($value + 0.055) / 1.055) ** 2.4, 5);
        }
        $surface = ['baseColorFactor' => [...$linear, $alpha], 'metallicFactor' => 0, 'roughnessFactor' => $roughness];
        if ($texture !== null) {
            $surface['baseColorTexture'] = ['index' => $this->texture($texture)];
        }
        $entry = ['name' => $name, 'pbrMetallicRoughness' => $surface];
        if ($alpha < 1) {
            $entry += ['alphaMode' => 'BLEND', 'doubleSided' => true];
        }

        return $this->materials[$name] = $this->file->add('materials', $entry);
    }

    /** Metres that one repeat of the material's texture spans, null if it has none. */
    public function span(string $name): ?float
    {
        return self::MATERIALS[$name][3] === null ? null : (float) self::MATERIALS[$name][4];
    }

    private function texture(string $name): int
    {
        if (! isset($this->textures[$name])) {
            $view = $this->file->view(self::draw($name));
            $image = $this->file->add('images', ['name' => $name, 'mimeType' => 'image/png', 'bufferView' => $view]);
            $sampler =
                $this->file->count('samplers') > 0
                    ? 0
                    : $this->file->add('samplers', ['wrapS' => 10497, 'wrapT' => 10497, 'magFilter' => 9729, 'minFilter' => 9987]);
            $this->textures[$name] = $this->file->add('textures', ['name' => $name, 'source' => $image, 'sampler' => $sampler]);
        }

        return $this->textures[$name];
    }

    /** @return string a PNG of 128 by 128 grey values that tint the material's colour */
    private static function draw(string $name): string
    {
        $size = 128;
        $shade = array_fill(0, $size * $size, 0.0);
        $random = new Dice(strlen($name) * 7919);
        for ($at = 0; $at < ($name === 'terrazzo' ? 420 : 0); $at++) {
            [$sx, $sy, $radius, $tone] = [
                $random->between(0, $size),
                $random->between(0, $size),
                $random->between(0.7, 2.4),
                $random->between(-34, 12),
            ];
            for ($y = (int) floor($sy - $radius); $y <= $sy + $radius; $y++) {
                for ($x = (int) floor($sx - $radius); $x <= $sx + $radius; $x++) {
                    if (($x - $sx) ** 2 + ($y - $sy) ** 2 < $radius ** 2) {
                        $shade[($y & ($size - 1)) * $size + ($x & ($size - 1))] = $tone;
                    }
                }
            }
        }
        $rows = '';
        for ($y = 0; $y < $size; $y++) {
            $rows .= "\0";
            for ($x = 0; $x < $size; $x++) {
                $value = match ($name) {
                    'tile' => $x % 32 < 2 || $y % 32 < 2 ? 205 : 244 + ((intdiv($x, 32) * 5 + intdiv($y, 32) * 3) % 11),
                    'timber' => 232 + 16 * sin($y * 0.49 + 1.7 * sin(($x * 2 * M_PI) / $size)) - ($y % 43 < 1 ? 40 : 0) + 5 * sin($y * 1.9),
                    default => 236,
                };
                $value += $shade[$y * $size + $x];
                $rows .= chr((int) max(0, min(255, $value)));
            }
        }
        $chunk = static fn (string $type, string $data): string => pack('N', strlen($data)).
            $type.
            $data.
            pack('N', crc32($type.$data));

        return "\x89PNG\r\n\x1a\n".
            $chunk('IHDR', pack('NNCCCCC', $size, $size, 8, 0, 0, 0, 0)).
            $chunk('IDAT', (string) gzcompress($rows, 9)).
            $chunk('IEND', '');
    }
}
