<?php

declare(strict_types=1);

namespace VineShelf\Formats;

/** A file that cannot be taken in. The message is one sentence for the person who gave the file. */
final class UnreadableFile extends \RuntimeException
{
    public static function because(string $sentence): self
    {
        return new self($sentence);
    }

    public static function missing(string $path): self
    {
        return new self('There is no readable file at '.$path.'.');
    }

    public static function unknownFormat(): self
    {
        return new self('This is not a glTF file: it starts neither as a .glb, nor as a .gltf, nor as a zip that holds a .gltf.');
    }

    public static function endsEarly(string $what, int $needed, int $present): self
    {
        return new self(
            "The file ends too early: $what needs ".number_format($needed).' bytes and there are '.number_format($present).'.',
        );
    }

    public static function brokenJson(string $where): self
    {
        return new self("The file's JSON is broken $where.");
    }

    public static function tooMuch(string $what, int|float $found, int|float $limit): self
    {
        return new self("The file has $what: ".number_format($found).', and the limit is '.number_format($limit).'.');
    }

    public static function unsupportedExtension(string $name): self
    {
        return new self("The file requires the extension \"$name\", which is not supported; export it without that extension.");
    }

    public static function badReference(string $from, string $to, int|string $index): self
    {
        return new self("$from refers to $to $index, which the file does not have.");
    }
}
