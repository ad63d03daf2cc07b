<?php

declare(strict_types=1);

namespace VineShelf\Formats\Gltf;

use VineShelf\Formats\Bytes;
use VineShelf\Formats\UnreadableFile;

/** Reads buffer views and accessors as tightly packed little-endian strings. */
final class Buffers
{
    private const FORMATS = [5120 => 'c', 5121 => 'C', 5122 => 's', 5123 => 'v', 5125 => 'V', 5126 => 'g'];

    private const SCALES = [5120 => 127.0, 5121 => 255.0, 5122 => 32767.0, 5123 => 65535.0, 5125 => 4294967295.0];

    /** How many components are converted at a time; bounds the memory that a large accessor takes. */
    private const WINDOW = 49_152;

    private readonly Unpacked $unpacked;

    /**
     * @param list<Bytes|null> $buffers   null for a buffer that has no data of its own
     * @param list<int>        $lengths   bytes that each buffer says it has
     * @param list<BufferView> $views
     * @param list<Accessor>   $accessors
     */
    public function __construct(
        private readonly array $buffers,
        private readonly array $lengths,
        private readonly array $views,
        private readonly array $accessors,
    ) {
        $this->unpacked = new Unpacked;
    }

    public function accessor(int $index, string $from): Accessor
    {
        return $this->accessors[$index] ?? throw UnreadableFile::badReference($from, 'accessor', $index);
    }

    /** All bytes of a view. */
    public function view(int $index): string
    {
        $view = $this->views[$index] ?? throw UnreadableFile::badReference('The file', 'buffer view', $index);

        return $this->bytes($view, 0, $view->mode === null ? $view->length : $view->stride * $view->count, $index);
    }

    /**
     * The elements as the format's own component type, one behind the other.
     *
     * @param int $first first element
     * @param int $count elements
     */
    public function raw(Accessor $accessor, int $first, int $count): string
    {
        $size = $accessor->size();
        if ($first + $count > $accessor->count) {
            throw UnreadableFile::endsEarly('an accessor', ($first + $count) * $size, $accessor->count * $size);
        }
        if ($count === 0) {
            return '';
        }
        $raw =
            $accessor->view === null
                ? str_repeat("\0", $size * $count)
                : $this->elements($accessor->view, $accessor->offset, $size, $first, $count);

        return $accessor->sparse === null ? $raw : $this->patched($raw, $accessor, $first, $count);
    }

    /** @return string 32-bit floats; integers are scaled when normalized */
    public function floats(Accessor $accessor): string
    {
        if ($accessor->componentType === 5126) {
            return $this->raw($accessor, 0, $accessor->count);
        }
        $floats = '';
        $perWindow = max(1, intdiv(self::WINDOW, $accessor->components));
        for ($first = 0; $first < $accessor->count; $first += $perWindow) {
            $raw = $this->raw($accessor, $first, min($perWindow, $accessor->count - $first));
            /** @var array<int, int> $numbers */
            $numbers = unpack((self::FORMATS[$accessor->componentType] ?? 'C').'*', $raw);
            if ($accessor->normalized) {
                $scale = self::SCALES[$accessor->componentType] ?? 1.0;
                foreach ($numbers as $at => $number) {
                    $numbers[$at] = max(-1.0, $number / $scale);
                }
            }
            $floats .= pack('g*', ...$numbers);
        }

        return $floats;
    }

    /** @return string unsigned 32-bit numbers */
    public function indices(Accessor $accessor): string
    {
        if ($accessor->componentType === 5125) {
            return $this->raw($accessor, 0, $accessor->count);
        }
        if (($accessor->componentType !== 5121 && $accessor->componentType !== 5123) || $accessor->components !== 1) {
            throw UnreadableFile::because('Indices must be unsigned whole numbers.');
        }
        $indices = '';
        for ($first = 0; $first < $accessor->count; $first += self::WINDOW) {
            /** @var array<int, int> $numbers */
            $numbers = unpack(
                self::FORMATS[$accessor->componentType].'*',
                $this->raw($accessor, $first, min(self::WINDOW, $accessor->count - $first)),
            );
            $indices .= pack('V*', ...$numbers);
        }

        return $indices;
    }

    private function elements(int $index, int $offset, int $size, int $first, int $count): string
    {
        $view = $this->views[$index] ?? throw UnreadableFile::badReference('An accessor', 'buffer view', $index);
        $stride = $view->stride > 0 ? $view->stride : $size;
        if ($stride < $size) {
            throw UnreadableFile::because("Buffer view $index has a stride of $stride bytes for elements of $size.");
        }
        $start = $offset + $first * $stride;
        $needed = ($count - 1) * $stride + $size;
        $there = $view->mode === null ? $view->length : $view->stride * $view->count;
        if ($start + $needed > $there) {
            throw UnreadableFile::endsEarly("buffer view $index", $start + $needed, $there);
        }
        $bytes = $this->bytes($view, $start, $needed, $index);
        if ($stride === $size) {
            return $bytes;
        }
        $packed = '';
        for ($at = 0, $end = $count * $stride; $at < $end; $at += $stride) {
            $packed .= substr($bytes, $at, $size);
        }

        return $packed;
    }

    /** A stretch of a view, unpacked when the view is compressed. */
    private function bytes(BufferView $view, int $offset, int $length, int $index): string
    {
        return $view->mode === null
            ? $this->stored($view, $offset, $length, $index)
            : $this->unpacked->of($index, $view, fn (): string => $this->stored($view, 0, $view->length, $index))->read($offset, $length);
    }

    private function stored(BufferView $view, int $offset, int $length, int $index): string
    {
        $buffer = $this->buffers[$view->buffer] ?? null;
        if ($buffer === null) {
            throw array_key_exists($view->buffer, $this->lengths)
                ? UnreadableFile::because(
                    "Buffer $view->buffer is not in the file; files outside it are never followed. Export with embedded data, ".
                        'zip the parts together, or give them together.',
                )
                : UnreadableFile::badReference("Buffer view $index", 'buffer', $view->buffer);
        }
        $there = min($this->lengths[$view->buffer], $buffer->size());
        if ($view->offset + $view->length > $there) {
            throw UnreadableFile::endsEarly("buffer view $index", $view->offset + $view->length, $there);
        }

        return $buffer->read($view->offset + $offset, $length);
    }

    private function patched(string $raw, Accessor $accessor, int $first, int $count): string
    {
        $sparse = $accessor->sparse;
        if ($sparse === null || $sparse['count'] === 0) {
            return $raw;
        }
        $indexSize = Accessor::BYTES[$sparse['indexType']] ?? 0;
        if ($indexSize === 0 || ! in_array($sparse['indexType'], [5121, 5123, 5125], true)) {
            throw UnreadableFile::because('The indices of a sparse accessor must be unsigned whole numbers.');
        }
        /** @var array<int, int> $indices */
        $indices = unpack(
            self::FORMATS[$sparse['indexType']].'*',
            $this->elements($sparse['indexView'], $sparse['indexOffset'], $indexSize, 0, $sparse['count']),
        );
        $size = $accessor->size();
        $values = $this->elements($sparse['valueView'], $sparse['valueOffset'], $size, 0, $sparse['count']);
        foreach (array_values($indices) as $at => $index) {
            if ($index >= $accessor->count) {
                throw UnreadableFile::because("A sparse accessor replaces element $index of ".$accessor->count.'.');
            }
            if ($index >= $first && $index < $first + $count) {
                $raw = substr_replace($raw, substr($values, $at * $size, $size), ($index - $first) * $size, $size);
            }
        }

        return $raw;
    }
}
