<?php

declare(strict_types=1);

namespace VineShelf\Tidy;

use VineShelf\Facts\Facts;
use VineShelf\Organizers\Organizers;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Scene;

/** What is looked through: a project as it is sorted, named and placed. */
final readonly class Model
{
    public Scene $scene;

    /**
     * @param list<string>                       $names    by scene row, entry 0 unused, as people and files wrote them
     * @param Bits                               $hidden   objects that neither the desk, nor the output, nor any view shows
     * @param array<int, array{int, string}>     $sets     objects that each live set finds, and what its rule names in vain; by number
     * @param array<int, string>                 $surfaces what a material looks like, by number: the same text for those that look alike
     * @param array<int, array{string, int}>     $meshes   what a mesh is made of, the same text for those that are alike, and its bytes; by
     *     number
     */
    public function __construct(
        public Facts $facts,
        public Organizers $organizers,
        public array $names,
        public Bits $hidden,
        public array $sets = [],
        public array $surfaces = [],
        public array $meshes = [],
    ) {
        $this->scene = $facts->scene;
    }

    /** @param array<array-key, int> $rows in any order */
    public function rows(array $rows): Bits
    {
        sort($rows);

        return Bits::ofRows($this->scene->count(), $rows);
    }

    public function none(): Bits
    {
        return Bits::none($this->scene->count());
    }
}
