<?php

declare(strict_types=1);

namespace VineShelf\Formats\Gltf;

use VineShelf\Formats\Bytes;
use VineShelf\Formats\FileBytes;
use VineShelf\Formats\UnreadableFile;

/**
 * Embedded data that is too long to be read along with the JSON around it: it stays in the file, and a short address stands in its place.
 */
final class Lifted
{
    /** Texts of so many bytes stay where they are. */
    public const LONG = 65_536;

    private const WINDOW = 1_048_576;

    /** @var array<string, array{int, int}> start and length in the JSON by the address that stands for it */
    private array $places = [];

    public function __construct(private readonly Bytes $json) {}

    public function put(int $start, int $length): string
    {
        $address = "data:,$start+$length";
        $this->places[$address] = [$start, $length];

        return $address;
    }

    public function has(string $address): bool
    {
        return isset($this->places[$address]);
    }

    /**
     * The data, decoded.
     *
     * @param string $address one that was {@see put()}
     */
    public function bytes(string $address): Bytes
    {
        [$start, $length] = $this->places[$address] ?? throw new \LogicException("Nothing was put at $address.");
        $head = $this->json->read($start, min(self::LONG, $length));
        $comma = strpos($head, ',');
        if ($comma === false) {
            throw UnreadableFile::because('An embedded buffer has no data behind its "data:".');
        }
        if (! str_contains(substr($head, 0, $comma), ';base64')) {
            throw UnreadableFile::because('A large embedded buffer is not in base64.');
        }
        $file = tmpfile();
        if ($file === false) {
            throw UnreadableFile::because('There is no room to unpack an embedded buffer.');
        }
        $left = '';
        $written = 0;
        for ($at = $start + $comma + 1, $end = $start + $length; $at < $end; $at += self::WINDOW) {
            // JSON may write a slash with a backslash before it.
            $left .= str_replace(['\\', "\n", "\r", ' '], '', $this->json->read($at, min(self::WINDOW, $end - $at)));
            $whole = $at + self::WINDOW >= $end ? strlen($left) : strlen($left) & ~3;
            $bytes = base64_decode(substr($left, 0, $whole), true);
            if ($bytes === false) {
                throw UnreadableFile::because('An embedded buffer is not valid base64.');
            }
            if (fwrite($file, $bytes) !== strlen($bytes)) {
                throw UnreadableFile::because('There is no room to unpack an embedded buffer.');
            }
            $written += strlen($bytes);
            $left = substr($left, $whole);
        }

        return new FileBytes($file, 0, $written);
    }
}
