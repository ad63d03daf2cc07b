<?php

declare(strict_types=1);

namespace VineShelf\Formats;

final readonly class TakenTexture
{
    /**
     * @param array<string, int> $sampler how it is wrapped and filtered: wrapS, wrapT, magFilter, minFilter with the numbers of glTF,
     *     as far as the file says it
     */
    public function __construct(public string $name, public array $sampler) {}
}
