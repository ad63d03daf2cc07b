<?php

declare(strict_types=1);

namespace VineShelf\Formats\Gltf;

use VineShelf\Formats\Limits;
use VineShelf\Formats\UnreadableFile;

/** The pictures that textures show: PNG, JPEG or WebP bytes from inside the file. */
final readonly class Pictures
{
    /** @param list<array{uri: string|null, view: int|null, name: string}> $images */
    public function __construct(private Container $container, private Buffers $buffers, private array $images, private Limits $limits) {}

    /** @return string|null null when the picture is outside the file or of no kind that browsers show */
    public function bytes(int $image): ?string
    {
        $entry = $this->images[$image] ?? throw UnreadableFile::badReference('A texture', 'image', $image);
        if ($entry['view'] !== null) {
            $bytes = $this->buffers->view($entry['view']);
        } else {
            $source = $entry['uri'] === null ? null : $this->container->resolve($entry['uri']);
            $bytes = $source?->read(0, $source->size());
        }
        if ($bytes === null || self::type($bytes) === null) {
            return null;
        }
        if (strlen($bytes) > $this->limits->textureBytes) {
            throw UnreadableFile::tooMuch("too many bytes in image $image", strlen($bytes), $this->limits->textureBytes);
        }

        return $bytes;
    }

    /** The media type, judged by the bytes and not by what the file says. */
    public static function type(string $bytes): ?string
    {
        return match (true) {
            str_starts_with($bytes, "\x89PNG\r\n\x1a\n") => 'image/png',
            str_starts_with($bytes, "\xFF\xD8\xFF") => 'image/jpeg',
            str_starts_with($bytes, 'RIFF') && substr($bytes, 8, 4) === 'WEBP' => 'image/webp',
            default => null,
        };
    }
}
